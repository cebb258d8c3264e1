"""How well kidneys filter, from creatinine."""

from __future__ import annotations

# Creatinine at which the curve bends [mg/dL], its slope under that, and the factor. Inker et al.
_CKD_EPI_2021 = {"female": (0.7, -0.241, 1.012), "male": (0.9, -0.302, 1.0)}
STAGES = ((90.0, "1"), (60.0, "2"), (45.0, "3a"), (30.0, "3b"), (15.0, "4"))


def egfr_ckd_epi_2021(creatinine_mg_dl: float, age_years: float, sex: str) -> float:
    """Estimated glomerular filtration rate. [mL/min/1.73 m^2] from serum creatinine [mg/dL], age
    [years]; for adults.

    Raises KeyError for an unknown sex, ValueError for a creatinine that is not above zero.

    References: Inker et al., N Engl J Med 385:1737 (2021), creatinine equation without race.
    """
    if not creatinine_mg_dl > 0:
        raise ValueError("creatinine must be above zero")
    bend, slope, factor = _CKD_EPI_2021[sex]
    ratio = creatinine_mg_dl / bend
    under, over = min(ratio, 1.0) ** slope, max(ratio, 1.0) ** -1.200
    return float(142.0 * under * over * 0.9938**age_years * factor)


def stage_of(egfr: float) -> str:
    """The stage that a rate stands for, "3b". [mL/min/1.73 m^2] Disease is a rate under 60, or
    damage, for three months: one value makes none.

    References: KDIGO (2012).
    """
    return next((stage for least, stage in STAGES if egfr >= least), "5")
