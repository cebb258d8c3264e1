"""How far what is in a package may lie from what its label prints, by the law it is sold under."""

from __future__ import annotations

from nutrition.composition.nutrients import AMINO_ACIDS
from nutrition.labels.printed_value import EUROPE
from nutrition.labels.rounding import Printed

# The United States: of what nature put in at least 80 % of what is printed, of energy, sugars, fats
# and sodium at most 120 %. 21 CFR 101.9(g)(4) and (5). The other side the law leaves to good
# practice: half as far. Common practice, no source. [share of what is printed]
US_LEAST, US_MOST, US_OTHER_SIDE = 0.8, 1.2, 0.1
US_AT_MOST = frozenset(
    {"energy_kcal", "sugars_g", "added_sugars_g", "fat_g", "saturated_fat_g", "sodium_mg"}
)
# The European Union: up to so much per 100 g within so many of the unit, above within a fifth, and
# of a lot within so many again. European Commission guidance on tolerances (December 2012), from
# memory. [g/100 g], [share]
EU_SHARE = 0.2
EU_GRAMS = {
    "carbohydrate_g": (10.0, 2.0, 40.0, 8.0),
    "sugars_g": (10.0, 2.0, 40.0, 8.0),
    "protein_g": (10.0, 2.0, 40.0, 8.0),
    "fiber_g": (10.0, 2.0, 40.0, 8.0),
    "fat_g": (10.0, 1.5, 40.0, 8.0),
    "saturated_fat_g": (4.0, 0.8, float("inf"), 0.0),
    "monounsaturated_fat_g": (4.0, 0.8, float("inf"), 0.0),
    "polyunsaturated_fat_g": (4.0, 0.8, float("inf"), 0.0),
}
# Salt of 1.25 g and less within 0.375 g, as sodium. [mg/100 g]
EU_SODIUM = (500.0, 150.0)
# Vitamins and minerals, below and above. [share]
EU_VITAMINS, EU_MINERALS = (0.35, 0.5), (0.35, 0.45)
MINERALS = frozenset(
    {"calcium_mg", "iron_mg", "magnesium_mg", "phosphorus_mg", "potassium_mg", "zinc_mg"}
    | {"copper_mg", "manganese_mg", "selenium_ug", "iodine_ug"}
)
# Energy is reckoned from the rest: as far as they go together. Common practice, no source.
EU_ENERGY = 0.15


def _us(key: str, printed: Printed) -> tuple[float, float]:
    if key in US_AT_MOST:
        return printed.amount * (1 - US_OTHER_SIDE), printed.amount * US_MOST
    return printed.amount * US_LEAST, printed.amount * (1 + US_OTHER_SIDE)


def _eu(key: str, printed: Printed) -> tuple[float, float]:
    amount = printed.amount
    if key == "energy_kcal":
        return amount * (1 - EU_ENERGY), amount * (1 + EU_ENERGY)
    if key in EU_GRAMS:
        few, within_few, many, within_many = EU_GRAMS[key]
        off = within_few if amount < few else within_many if amount > many else amount * EU_SHARE
        return amount - off, amount + off
    if key == "sodium_mg":
        up_to, within = EU_SODIUM
        off = within if amount < up_to else amount * EU_SHARE
        return amount - off, amount + off
    below, above = EU_MINERALS if key in MINERALS else EU_VITAMINS
    return amount * (1 - below), amount * (1 + above)


def tolerated(kind: str, key: str, printed: Printed) -> Printed:
    """What may be in the package, per 100 g of it, by the law it is sold under, its rounding held
    in it. In the key's unit. `kind` is a kind of label; all but the European are held to the
    American law, which is the narrower.

    References: 21 CFR 101.9(g); European Commission, guidance on tolerances (December 2012), from
    memory.
    """
    if key in AMINO_ACIDS or printed.amount <= 0:
        return printed
    low, high = (_eu if kind == EUROPE else _us)(key, printed)
    return Printed(printed.amount, max(min(printed.low, low), 0.0), max(printed.high, high))
