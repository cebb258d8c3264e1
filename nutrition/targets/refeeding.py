"""Who may not simply start to eat again: the usual criteria of a risk that eating itself kills."""

from __future__ import annotations

from collections.abc import Set

# Under this body mass index eating again can kill: nothing is computed. [kg/m²]
REFEEDING_BMI, LOW_BMI = 16.0, 18.5
# One of these is enough; of the lesser ones two are. NICE guideline CG32, from memory.
ALONE = {
    "lost_15_percent": "15 % of the weight lost unasked in three to six months",
    "little_eaten_10_days": "little or nothing eaten for more than 10 days",
    "low_electrolytes": "low potassium, phosphate or magnesium before eating again",
}
TOGETHER = {
    "lost_10_percent": "10 % of the weight lost unasked in three to six months",
    "little_eaten_5_days": "little or nothing eaten for more than 5 days",
    "alcohol_misuse": "too much alcohol, now or before",
    "insulin": "insulin",
    "cancer_treatment": "chemotherapy",
    "ppi": "antacids",
    "diuretic": "a diuretic",
    "spironolactone": "a diuretic",
}
# Of the medicines that count, all together are one criterion.
MEDICINES = ("alcohol_misuse", "insulin", "cancer_treatment", "ppi", "diuretic", "spironolactone")
# Not in the guideline: a body that an eating disorder has made thin is counted with it. Common
# practice, no source.
EATING_DISORDER = "eating_disorder_history"


def refeeding_risk(bmi: float, conditions: Set[str]) -> str:
    """Why starting to eat is a danger, in words; empty where no criterion says so. [kg/m²]

    References: NICE guideline CG32, criteria for a high risk of refeeding problems, from memory.
    """
    if bmi < REFEEDING_BMI:
        return f"BMI {bmi:.1f} is under {REFEEDING_BMI:g}"
    alone = [words for code, words in ALONE.items() if code in conditions]
    if alone:
        return "; ".join(alone)
    lesser = [
        words for code, words in TOGETHER.items() if code in conditions and code not in MEDICINES
    ]
    medicines = [code for code in MEDICINES if code in conditions]
    if medicines:
        lesser.append(TOGETHER[medicines[0]])
    if bmi < LOW_BMI:
        lesser.append(f"BMI {bmi:.1f} under {LOW_BMI:g}")
        if EATING_DISORDER in conditions:
            lesser.append("a history of disordered eating")
    return " and ".join(lesser) if len(lesser) > 1 else ""
