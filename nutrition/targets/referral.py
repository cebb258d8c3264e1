"""Persons for whom no number is computed until somebody who treats them has given one."""

from __future__ import annotations

from collections.abc import Collection

from nutrition.targets.conditions import of_the_kidneys
from nutrition.targets.person import Person, Referred

# Protein builds up a poison in these: only the clinic's numbers hold.
OF_PROTEIN = ("pku", "protein_disorder")
PROTEIN_KEYS = ("protein_g", "phenylalanine_g", "phenylalanine_tyrosine_g")


def needs_a_clinic(codes: Collection[str]) -> bool:
    """Whether nothing may be proposed to somebody with these before their clinic gave numbers."""
    return any(code in codes for code in OF_PROTEIN)


def check_referral(person: Person, ordered: Collection[str]) -> None:
    """Raises Referred where only a clinician's numbers hold and none is among the keys that are
    `ordered`.

    References: ACMG guideline for phenylalanine hydroxylase deficiency (2014), from memory; kidney
    disease in pregnancy: common practice, no source.
    """
    given = any(key in ordered for key in PROTEIN_KEYS)
    if needs_a_clinic(person.conditions) and not given:
        raise Referred(
            "conditions",
            "Protein of ordinary food harms the brain here: no number is computed and nothing is "
            "proposed before the metabolic clinic's protein, or phenylalanine, is recorded as an "
            "order.",
            "the metabolic clinic",
        )
    carries = person.pregnant or person.nursing
    if carries and not of_the_kidneys().isdisjoint(person.conditions) and not given:
        stage = "Pregnant" if person.pregnant else "Nursing"
        raise Referred(
            "conditions",
            f"{stage} with kidney disease: the one asks for protein that the other limits, and no "
            f"number here fits both. It is computed once the nephrologist's protein is recorded as "
            f"an order.",
            "the nephrologist and the obstetrician, with a renal dietitian",
        )
