"""Where a number comes from: the parts of a dish, the lines of a recipe, what cooking left of each,
down to the rows of the composition table and their sources."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field, replace

from nutrition.composition.amounts import DENSITY, PRAL_FACTORS, amount_of
from nutrition.composition.cooking_methods import Cooked
from nutrition.composition.foods import Food
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import NUTRIENT, SUMS
from nutrition.composition.portion import Portion
from nutrition.composition.profile import INDEX, Amount, Profile
from nutrition.composition.variation import spread_said
from nutrition.recipe.part import PartFood
from nutrition.recipe.reckoning import Facts
from nutrition.written.line import Line

# What brings less than this share of the whole stands at the end without its own rows.
CRUMB = 0.005


@dataclass(frozen=True, kw_only=True)
class Row:
    """A row of the composition table: its value per 100 g with its spread, and its source. In the
    key's unit; None: nobody knows."""

    food: str
    slug: str
    per_100_g: float | None
    low: float | None
    high: float | None
    source: str
    description: str
    notes: str = ""
    overruled: tuple[str, ...] = ()


@dataclass(frozen=True, kw_only=True)
class Derived:
    """One step: what it is of, how much of it there is [g], what it brings in the key's unit, the
    factors and assumptions on the way, and the steps that it is made of. A step of one food ends
    in its `row`."""

    name: str
    key: str
    amount: Amount
    grams: float | None = None
    low_g: float | None = None
    high_g: float | None = None
    basis: str = ""
    factors: tuple[str, ...] = ()
    row: Row | None = None
    steps: tuple[Derived, ...] = field(default=())

    @property
    def unit(self) -> str:
        return NUTRIENT[self.key].unit


def row_of(food: Food, key: str) -> Row:
    """The row of a food for a key of the table. Raises KeyError for a key that has no column."""
    at = INDEX[key]
    value, low, high = (
        None if one[at] != one[at] else float(one[at]) for one in (food.values, food.low, food.high)
    )
    said = spread_said(food.group, key, food.values, food.high)
    return Row(
        food=food.name,
        slug=food.slug,
        per_100_g=value,
        low=low,
        high=high,
        source=food.source,
        description=food.source_description,
        notes="; ".join(filter(None, (food.notes, said))),
        overruled=food.overruled,
    )


def _made_of(key: str) -> tuple[str, ...]:
    """How a key that is no column comes about."""
    if key in SUMS:
        return (f"the sum of {', '.join(NUTRIENT[one].name.lower() for one in SUMS[key])}",)
    if key == "pral_meq":
        parts = (
            f"{factor:+g} x {NUTRIENT[one].name.lower()} [{NUTRIENT[one].unit}]"
            for one, factor in PRAL_FACTORS.items()
        )
        return (f"{' '.join(parts)} (Remer and Manz 1995)",)
    return ("energy through weight, without what is drunk beside it",) if key == DENSITY else ()


def _row(food: Food, key: str) -> Row | None:
    return row_of(food, key) if key in INDEX else None


def of_food(food: Food, grams: float, key: str, left: Food | None = None) -> Derived:
    """So many grams of one food, with what cooking `left` of it per 100 g as it went in. [g]"""
    eaten = (left or food).profile(grams)
    factors: tuple[str, ...] = _made_of(key)
    if key in INDEX and left is not None:
        raw, after = food.per_100_g(key), left.per_100_g(key)
        if raw and after is not None and abs(after - raw) > CRUMB * raw:
            factors = (*factors, f"{after / raw * 100:.0f} % is left after cooking")
    return Derived(
        name=food.name,
        key=key,
        amount=amount_of(eaten, key),
        grams=grams,
        factors=factors,
        row=_row(food, key),
    )


def _of_foods(foods: Iterable[Ingredient], key: str) -> tuple[Derived, ...]:
    together: dict[str, Ingredient] = {}
    for one in foods:
        there = together.get(one.food.slug)
        grams = one.grams + (there.grams if there else 0.0)
        together[one.food.slug] = replace(one, grams=grams)
    return _in_order([of_food(one.food, one.grams, key, one.cooked) for one in together.values()])


def _in_order(steps: Sequence[Derived]) -> tuple[Derived, ...]:
    return tuple(sorted(steps, key=lambda one: -abs(one.amount.amount)))


def _of_line(line: Line, cooked: Cooked | None, key: str, share: float) -> Derived:
    """A line of a recipe, its share of the batch. [0 to 1]"""
    profile = (cooked.profile if cooked else Profile.unsettled()) * share
    factors = [*line.assumed, *(cooked.assumed if cooked else ())]
    steps: tuple[Derived, ...] = ()
    row = None
    if line.food is None:
        factors.append(line.why or "not counted")
    elif isinstance(line.food, PartFood):
        steps = _of_foods((one.times(share) for one in line.food.foods_in(line.grams or 0.0)), key)
    else:
        row = _row(line.food, key)
        plain = amount_of(line.food.profile(line.grams or 0.0), key).amount * share
        eaten = amount_of(profile, key).amount
        if plain > 0 and abs(eaten - plain) > CRUMB * plain:
            factors.append(f"{eaten / plain * 100:.0f} % is left after cooking")
    if share != 1.0:
        factors.append(f"{share * 100:.3g} % of the batch")
    return Derived(
        name=line.text or (line.food.name if line.food else ""),
        key=key,
        amount=amount_of(profile, key),
        grams=None if line.grams is None else line.grams * share,
        low_g=None if line.low is None else line.low * share,
        high_g=None if line.high is None else line.high * share,
        basis=line.basis,
        factors=(*_made_of(key), *factors),
        row=row,
        steps=steps,
    )


def of_recipe(facts: Facts, key: str, share: float | None = None, name: str = "") -> Derived:
    """A serving of a recipe, or a `share` of its batch [0 to 1], line by line. Raises KeyError."""
    part = 1.0 / facts.recipe.servings if share is None else share
    profile = facts.batch * part
    factors = [f"{part * 100:.3g} % of the batch of {facts.batch.grams:.0f} g"]
    if facts.recipe.batch_g:
        factors.append("the batch was weighed")
    return Derived(
        name=name or facts.recipe.title or "One serving",
        key=key,
        amount=amount_of(profile, key),
        grams=profile.grams,
        factors=tuple(factors),
        steps=_in_order([_of_line(line, cooked, key, part) for line, cooked in facts.rows]),
    )


def of_portion(portion: Portion, key: str, facts: Facts | None = None) -> Derived:
    """A part of a bowl or an entry of a day; `facts` are those of the recipe that it is. Raises
    KeyError."""
    if facts is not None and facts.batch.grams > 0:
        share = portion.profile.grams / facts.batch.grams
        return of_recipe(facts, key, share, portion.name)
    steps = _of_foods(portion.foods, key)
    amount = amount_of(portion.profile, key)
    if portion.food is not None and len(steps) == 1:
        return replace(
            steps[0],
            name=portion.name,
            amount=amount,
            low_g=_grams(portion, -1),
            high_g=_grams(portion, 1),
        )
    return Derived(
        name=portion.name, key=key, amount=amount, grams=portion.profile.grams, steps=steps
    )


def _grams(portion: Portion, side: int) -> float:
    spread = portion.profile.grams_down2 if side < 0 else portion.profile.grams_up2
    return float(portion.profile.grams + side * spread**0.5)


def of_dish(
    name: str,
    profile: Profile,
    portions: Iterable[Portion],
    key: str,
    facts_of: Callable[[Portion], Facts | None] = lambda portion: None,
) -> Derived:
    """A dish or a day part by part; `facts_of` gives the recipe that a part is, if it is one.
    Raises KeyError for a key that nothing is reckoned of."""
    return Derived(
        name=name,
        key=key,
        amount=amount_of(profile, key),
        grams=profile.grams,
        factors=_made_of(key),
        steps=_in_order([of_portion(one, key, facts_of(one)) for one in portions]),
    )


def as_lines(derived: Derived, depth: int = 0) -> str:
    """The derivation as indented lines, the largest first."""
    amount, row, indent = derived.amount, derived.row, "  " * depth
    grams = "" if derived.grams is None else f", {derived.grams:.1f} g"
    said = f"{amount.amount:.4g} {derived.unit} ({amount.low:.4g} to {amount.high:.4g})"
    out = [f"{indent}{derived.name}{grams}: {said if amount.known else 'unknown'}"]
    out += [f"{indent}  {factor}" for factor in derived.factors]
    if row is not None:
        value = "unknown" if row.per_100_g is None else f"{row.per_100_g:.4g} {derived.unit}"
        out.append(f"{indent}  row {row.slug}: {value} in 100 g; {row.source}, {row.description}")
    inner = "".join(as_lines(step, depth + 1) for step in derived.steps)
    return "\n".join(["", *out] if depth == 0 else out) + "\n" + inner


def as_data(derived: Derived) -> dict[str, object]:
    """The derivation as JSON-ready data."""

    def number(value: float | None) -> float | None:
        return None if value is None or value in (float("inf"),) else float(f"{value:.6g}")

    amount, row = derived.amount, derived.row
    out: dict[str, object] = {
        "name": derived.name,
        "amount": number(amount.amount),
        "low": number(amount.low),
        "high": number(amount.high),
        "unit": derived.unit,
        "known": number(amount.known),
        "could_add": number(amount.could_add),
        "grams": number(derived.grams),
    }
    if derived.basis:
        out |= {
            "basis": derived.basis,
            "grams_low": number(derived.low_g),
            "grams_high": number(derived.high_g),
        }
    if derived.factors:
        out["factors"] = list(derived.factors)
    if row is not None:
        out["row"] = {
            "food": row.slug,
            "name": row.food,
            "per_100_g": number(row.per_100_g),
            "low": number(row.low),
            "high": number(row.high),
            "source": row.source,
            "described_as": row.description,
        } | ({"overruled": list(row.overruled)} if row.overruled else {})
    if derived.steps:
        out["steps"] = [as_data(one) for one in derived.steps]
    return out
