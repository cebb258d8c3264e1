"""What is shown of a label: what it prints and what is eaten of it, its list as it was read, its
claims, and what it offends for a client."""

from collections.abc import Iterator
from dataclasses import dataclass

from clients.models import Client
from clients.plan.cautions import of_foods
from clients.plan.gate import gate_of
from clients.plan.in_force import plan_of
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import NUTRIENT, Nutrient
from nutrition.composition.profile import Amount
from nutrition.labels.claims import held
from nutrition.labels.ingredients import Ingredients
from nutrition.labels.own_food import OwnFood
from nutrition.labels.rounding import Printed, label_values
from nutrition.labels.servings import eaten
from nutrition.safety.gate import AVOIDED
from nutrition.written.typed_amounts import UnreadableAmount

# What a list is asked for, in this order: the class, and what to say of it.
ASKED = (
    ("oil", "Oil and fat"),
    ("added sugar", "Sugar, by any name"),
    ("starch sweetener", "Sugars of starch"),
    ("sweetener", "Sweeteners"),
    ("added salt", "Salt"),
    ("sodium additive", "Sodium in additives"),
    ("phosphate additive", "Phosphates"),
    ("may phosphate", "May be phosphates"),
    ("potassium additive", "Potassium added"),
    ("glutamate", "Glutamates"),
    ("refined", "Refined starch and flour"),
    ("fermentable fiber", "Fiber that ferments"),
    ("caffeine", "Caffeine"),
    ("alcohol", "Alcohol"),
    ("licorice", "Licorice"),
    ("kelp", "Kelp: iodine that nobody states"),
    ("sulfite", "Sulfites"),
    ("may animal", "May be of animals"),
)
ALWAYS_TOLD = ("oil", "added sugar", "added salt", "phosphate additive", "potassium additive")


@dataclass(frozen=True)
class Told:
    """One thing a list was asked for: the ingredients that are it, each with its place in the list
    by weight."""

    heading: str
    names: tuple[tuple[str, int], ...]


@dataclass(frozen=True, kw_only=True)
class Value:
    """What a label prints of a nutrient, and what that comes to."""

    nutrient: Nutrient
    printed: Printed
    eaten: Amount | None
    package: Printed | None
    per_100_g: Printed


def told_of(listed: Ingredients) -> Iterator[Told]:
    for kind, heading in ASKED:
        names = listed.classes.get(kind, ())
        if names or kind in ALWAYS_TOLD:
            yield Told(heading, tuple((name, listed.place_of(name)) for name in names))


def seen(made: OwnFood, amount: str, client: Client | None, system: str) -> dict[str, object]:
    """Everything that is shown of a food made of its label; `amount` is what is eaten of it."""
    read, listed = made.label, made.ingredients
    portion, wrong = None, ""
    if amount.strip():
        try:
            portion = eaten(amount, made, system)
        except UnreadableAmount as error:
            wrong = str(error)
    grams = portion.grams if portion and portion.grams else read.serving_g.amount
    profile = (
        made.food.profile(grams, portion.low, portion.high)
        if portion is not None and portion.grams
        else None
    )
    values = [
        Value(
            nutrient=NUTRIENT[key],
            printed=read.per_serving[key],
            eaten=profile[key] if profile is not None else None,
            package=read.per_serving[key].times(read.servings.amount) if read.servings else None,
            per_100_g=read.per_100_g[key],
        )
        for key in label_values()
        if key in read.per_serving
    ]
    plan, foods = plan_of(client), [Ingredient(made.food, grams)]
    bars = [bar for bar in gate_of(plan).bars(foods) if bar.code.startswith(AVOIDED)]
    return {
        "made": made,
        "values": values,
        "portion": portion,
        "amount": amount,
        "amount_wrong": wrong,
        "told": list(told_of(listed)),
        "listed": listed,
        "fortified": [(NUTRIENT[key].name, names) for key, names in listed.fortified.items()],
        "b12": "vitamin_b12_ug" in listed.fortified,
        "claims": held(made.label.label.claims, read, listed),
        "cautions": of_foods(plan, foods),
        "bars": bars,
        "client": client,
        "like": made.like,
    }
