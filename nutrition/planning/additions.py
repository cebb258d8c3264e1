"""What a person adds where energy or protein is missing: bread beside the soup, a few spoons more
beans, a richer dressing, a snack; from data/additions.toml."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from nutrition.composition.drinks import beside_the_food
from nutrition.composition.foods import food_table
from nutrition.composition.helpings import first_helping_g
from nutrition.composition.portion import food_portion
from nutrition.composition.tables import BadTable, toml_rows
from nutrition.planning.candidates import candidate_of
from nutrition.planning.kinds import kinds_of_food
from nutrition.planning.week import Candidate, Slot
from nutrition.portions.staples import KIDNEYS
from nutrition.safety.gate import Gate
from nutrition.targets.meals import MEAL_NAMES

NEEDED = ("meals", "helpings", "words")
ROW = (*NEEDED, "for_kidneys")
# Where it stands in a meal: beside its slots.
ADDED_PLACE = 19
SNACK = "snack"
# Who eats no more often than so many times a day eats nothing between. Common practice, no source.
WITHOUT_SNACKS = 2
# A large eater may add two helpings. Common practice, no source.
LARGE = 2.0


@dataclass(frozen=True, kw_only=True)
class Addition:
    """A food, the meals it is added to, in how many first helpings, and what it is there. What is
    `for_kidneys` is added only where the kidneys set the limits."""

    food: str
    meals: frozenset[str]
    helpings: tuple[float, float]
    words: str
    for_kidneys: bool = False


@lru_cache(maxsize=1)
def additions() -> tuple[Addition, ...]:
    """All of them, in the order in which they are thought of. Raises BadTable."""
    out = []
    for slug, row in toml_rows("additions.toml", ROW, NEEDED).items():
        if food_table().get(slug) is None or set(row["meals"]) - set(MEAL_NAMES):
            raise BadTable(f"additions.toml, {slug}: no such food, or no such meal", slug)
        least, most = row["helpings"]
        out.append(
            Addition(
                food=slug,
                meals=frozenset(row["meals"]),
                helpings=(least, most),
                words=row["words"],
                for_kidneys=row.get("for_kidneys", False),
            )
        )
    return tuple(out)


def kind_added(meal: str) -> str:
    """The kind of place that holds what is added to a meal."""
    return f"added to {meal}"


def _is_a(kind: str) -> str:
    """What an addition is, beside what it is added to."""
    return f"a {kind}"


def is_added(kind: str) -> bool:
    """Whether a kind of place holds what was added."""
    return kind.startswith("added to ")


def words_of(key: str) -> str:
    """What an addition is at its meal, by its candidate's key; empty for what is none."""
    return next((one.words for one in additions() if key == f"food-{one.food}"), "")


def places_for(slots: Sequence[Slot], snacks: bool) -> list[Slot]:
    """A place at every planned meal for what may be added, and with `snacks` one between meals of a
    day that has none."""
    out = []
    first: dict[tuple[int, str], Slot] = {}
    for slot in slots:
        first.setdefault((slot.day, slot.meal), slot)
    meals = list(first)
    if snacks:
        days = dict.fromkeys(slot.day for slot in slots)
        meals += [(day, SNACK) for day in days if (day, SNACK) not in first]
    for day, meal in sorted(meals):
        like = first.get((day, meal))
        out.append(
            Slot(
                key=f"{day}-{meal}-{ADDED_PLACE}",
                day=day,
                meal=meal,
                kind=kind_added(meal),
                eaters=1.0,
                packed=like.packed if like else False,
                optional=True,
                # no bread beside bread, no fruit beside fruit
                without=frozenset(
                    _is_a(slot.kind) for slot in slots if (slot.day, slot.meal) == (day, meal)
                ),
            )
        )
    return out


def eats_between(meals: int) -> bool:
    """Whether somebody with so many meals a day has something between them."""
    return meals > WITHOUT_SNACKS


def with_additions(
    candidates: Sequence[Candidate],
    gate: Gate,
    keys: Iterable[str],
    large: bool = False,
) -> tuple[Candidate, ...]:
    """The candidates and what may be added that the gate lets through; what stands among them
    already may be added too. A `large` eater may have two helpings; where the kidneys set the
    limits there is also what brings energy and little else."""
    kidneys = not KIDNEYS.isdisjoint(gate.situation.conditions)
    out, wanted = {one.key: one for one in candidates}, list(keys)
    for at, row in enumerate(additions()):
        food = food_table()[row.food]
        key, kinds = f"food-{row.food}", frozenset(map(kind_added, row.meals))
        kinds |= set(map(_is_a, kinds_of_food(food)))
        if key in out:
            out[key] = replace(out[key], kinds=out[key].kinds | kinds)
        elif not gate.why_not(food) and (kidneys or not row.for_kidneys):
            portion = food_portion(food, first_helping_g(food), key=key)
            least, most = row.helpings
            counts = (least, max(most, LARGE) if large else most, 1.0)
            made = candidate_of(beside_the_food(portion), kinds, counts, wanted, liked=at)
            out[key] = replace(made, dish=False)
    return tuple(out.values())
