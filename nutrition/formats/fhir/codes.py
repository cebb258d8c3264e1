"""The codes by which other programs know a value, a unit and a nutrient: LOINC, UCUM, our own."""

from __future__ import annotations

from functools import lru_cache

from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.tables import BadTable, toml_rows
from nutrition.targets.blood import analytes

LOINC, UCUM = "http://loinc.org", "http://unitsofmeasure.org"
SNOMED = "http://snomed.info/sct"
# What others have no code for is named by our own.
OWN = "urn:x-round-pantry"
WEIGHT, HEIGHT, WAIST = "29463-7", "8302-2", "8280-0"
# Our units as UCUM writes them (ucum.org, case sensitive); [unit] is [code].
UCUM_OF = {
    "mmol/L": "mmol/L",
    "mEq/L": "meq/L",
    "mg/dL": "mg/dL",
    "mg/L": "mg/L",
    "µmol/L": "umol/L",
    "nmol/L": "nmol/L",
    "pmol/L": "pmol/L",
    "mmol/mol": "mmol/mol",
    "mg/g": "mg/g",
    "mg/mmol": "mg/mmol",
    "%": "%",
    "ng/mL": "ng/mL",
    "ng/L": "ng/L",
    "pg/mL": "pg/mL",
    "µg/L": "ug/L",
    "g/dL": "g/dL",
    "g/L": "g/L",
    "mIU/L": "m[IU]/L",
    "µIU/mL": "u[IU]/mL",
    "INR": "{INR}",
    "mmHg": "mm[Hg]",
    "kPa": "kPa",
    "cm": "cm",
    "in": "[in_i]",
    "mL/min/1.73 m²": "mL/min/{1.73_m2}",
    "mL/min": "mL/min",
    "U/L": "U/L",
    "µkat/L": "ukat/L",
    "kg": "kg",
    "kcal": "kcal",
    "g": "g",
    "mg": "mg",
    "µg": "ug",
    "mL": "mL",
    "mEq": "meq",
    "kcal/g": "kcal/g",
    "ratio": "1",
}
# What else a laboratory writes for the same.
_ALSO = {
    "umol/l": "µmol/L",
    "mcmol/l": "µmol/L",
    "mcg/l": "µg/L",
    "meq/l": "mEq/L",
    "mmol/l": "mmol/L",
    "mg/dl": "mg/dL",
    "miu/l": "mIU/L",
    "u[iu]/ml": "µIU/mL",
    "uiu/ml": "µIU/mL",
    "[iu]/l": "U/L",
    "iu/l": "U/L",
    "{inr}": "INR",
    "1": "INR",
    "mm[hg]": "mmHg",
    "ml/min/{1.73_m2}": "mL/min/1.73 m²",
    "ml/min/1.73m2": "mL/min/1.73 m²",
    "ml/min/{1.73m2}": "mL/min/1.73 m²",
    "[lb_av]": "lb",
    "[in_i]": "in",
}
# Nutrients that SNOMED CT has a code for in the value set of NutritionOrder; from memory.
SNOMED_OF = {"sodium_mg": "39972003", "potassium_mg": "88480006"}


@lru_cache(maxsize=1)
def _table() -> dict[str, dict[str, str]]:
    """The LOINC code of each analyte by unit. Raises BadTable for a unit without one."""
    rows = toml_rows("fhir_codes.toml", ["codes", "also"], ["codes", "also"])
    out: dict[str, dict[str, str]] = {}
    for key, one in analytes().items():
        codes = dict(rows.get(key, {}).get("codes", {}))
        if set(codes) != set(one.units):
            raise BadTable(f"fhir_codes.toml, {key}: a code for each unit", "codes")
        out[key] = codes
    return out


@lru_cache(maxsize=1)
def _keys() -> dict[str, str]:
    """The analyte that a LOINC code means."""
    rows = toml_rows("fhir_codes.toml", ["codes", "also"], ["codes", "also"])
    found: dict[str, str] = {}
    for key, row in rows.items():
        for code in {*row["codes"].values(), *row["also"]}:
            if found.setdefault(code, key) != key:
                raise BadTable(f"fhir_codes.toml: {code} means {found[code]} and {key}", "codes")
    return found


def loinc_of(key: str, unit: str) -> str:
    """The LOINC code of an analyte in one of its units."""
    return _table()[key][unit]


def analyte_of(code: str) -> str | None:
    """The key of the analyte that a LOINC code means; None for one that is not known."""
    return _keys().get(code)


def ucum_of(unit: str) -> str:
    """A unit as UCUM writes it; in braces, which say that it is none of UCUM's, where it is our
    own."""
    return UCUM_OF.get(unit, f"{{{unit}}}")


def unit_of(code: str) -> str:
    """Our unit for a code of UCUM, or for how a laboratory writes it; as it stands where none is
    known."""
    given = code.strip().replace("μ", "µ")
    for ours, theirs in UCUM_OF.items():
        if given in (theirs, ours):
            return ours
    return _ALSO.get(given.lower(), given)


def nutrient_coding(key: str) -> list[dict[str, str]]:
    """How a nutrient is named: by our key, and by SNOMED CT where it has a code."""
    name = NUTRIENT[key].name
    own = {"system": f"{OWN}:nutrient", "code": key, "display": name}
    there = SNOMED_OF.get(key)
    return [{"system": SNOMED, "code": there, "display": name}, own] if there else [own]
