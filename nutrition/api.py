"""The door to the core for a Python program: a recipe read and reckoned, a person and their
targets, cautions, portions, a week, a follow-up, a label. What an amount is not known of, it says.
"""

# Whole: over 400 lines, most of them documentation; it does nothing itself and is read at once.

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from nutrition.composition.amounts import amount_of
from nutrition.composition.errors import CoreError
from nutrition.composition.food_names import food_names
from nutrition.composition.foods import Food, food_table
from nutrition.composition.nutrients import NUTRIENT, Nutrient
from nutrition.composition.profile import Amount, Profile
from nutrition.formats.recipe_files import read_recipe as _read_recipe
from nutrition.insight.derivation import as_lines, of_recipe
from nutrition.labels.label import Label
from nutrition.labels.own_food import OwnFood, own_food
from nutrition.recipe.model import Recipe
from nutrition.recipe.reckoning import Facts
from nutrition.recipe.reckoning import reckon as _reckon
from nutrition.requests import balance_answer, week_answer
from nutrition.requests.balance import read_problem
from nutrition.requests.balance_answer import BalanceAnswer
from nutrition.requests.cautions import CautionsAnswer
from nutrition.requests.cautions import report as _cautions
from nutrition.requests.follow_answer import FollowAnswer
from nutrition.requests.follow_answer import report as _follow
from nutrition.requests.person import PersonGiven
from nutrition.requests.structure import decoded
from nutrition.requests.week import read_week
from nutrition.requests.week_answer import WeekAnswer
from nutrition.targets.day import DayTargets
from nutrition.targets.person import OutOfRange
from nutrition.written.finding import find_foods as _find_foods

__all__ = [
    "Amount",
    "BalanceAnswer",
    "CautionsAnswer",
    "CoreError",
    "DayTargets",
    "Facts",
    "FollowAnswer",
    "Food",
    "OwnFood",
    "PersonGiven",
    "Recipe",
    "WeekAnswer",
    "amount",
    "balance",
    "cautions",
    "explain",
    "find_foods",
    "follow",
    "nutrients",
    "person",
    "plan_week",
    "read_label",
    "read_recipe",
    "reckon",
    "targets",
]


def nutrients() -> Mapping[str, Nutrient]:
    """Everything that an amount or a target can be asked of.

    Returns
    -------
    Mapping of str to Nutrient
        By key, such as ``"protein_g"``; the key ends with the unit. Each has its name, unit, group
        and the decimals it is shown with.

    Examples
    --------
    >>> nutrients()["potassium_mg"].name
    'Potassium'
    """
    return NUTRIENT


def find_foods(query: str, most: int = 10) -> list[Food]:
    """Foods of the table by what people call them, the likeliest first.

    Parameters
    ----------
    query : str
        Words: other names, plurals and misspellings are known.
    most : int, optional
        How many at most.

    Returns
    -------
    list of Food
        Each with its `slug`, by which the other functions take it, and its values per 100 g, NaN
        where nobody knows one.

    Examples
    --------
    >>> [food.slug for food in find_foods("pearl barley", 2)]
    ['barley-pearled-dry', 'barley-pearled-cooked']
    """
    return [match.food for match in _find_foods(query, most)]


def read_recipe(text: str) -> Recipe:
    """A recipe out of a text, a schema.org Recipe in JSON, CSV, or a page saved from the web.

    Parameters
    ----------
    text : str
        What was written: a title, "Serves 4", a line for each ingredient, "Method:" and its steps.

    Returns
    -------
    Recipe
        Its lines as they were written; nothing is looked up yet.

    Raises
    ------
    CoreError
        Where there is no recipe in it; the message says why.

    Examples
    --------
    >>> soup = read_recipe("Split mung soup\\nServes 4\\n1 cup split mung beans\\n1 L water")
    >>> soup.title, soup.servings, soup.lines
    ('Split mung soup', 4.0, ('1 cup split mung beans', '1 L water'))
    """
    return _read_recipe(text).recipe


def reckon(recipe: Recipe | str | Sequence[str]) -> Facts:
    """A recipe reckoned: grams, cooking, and what is in the batch, a serving, and 100 g of it.

    Parameters
    ----------
    recipe : Recipe or str or sequence of str
        A recipe, or its lines, as one text or one by one.

    Returns
    -------
    Facts
        `lines` with the food, grams, range and basis of each; `unresolved`, those that are not
        counted, with why; the profiles `batch`, `serving` and `per_100_g`. An amount of a profile
        has `amount`, `low` and `high` in the unit of its key, and `known`, the share of the grams
        that it is known of [0 to 1].

    Raises
    ------
    TypeError
        For what is no text.

    Notes
    -----
    The grams of a line come from a weight, a household measure of the food, or its volume and
    density, each with the range of how it was measured. Cooking changes weight by yield factors and
    nutrients by retention factors. An unknown value is left unknown: the total is then "at least".

    References
    ----------
    Every row of the food table names its source; yields and retention are after the US Department
    of Agriculture's tables of both, as `nutrition/data/README.md` says of each file.

    Examples
    --------
    >>> facts = reckon(["200 g cooked white beans", "1 tbsp lemon juice"])
    >>> protein = facts.serving["protein_g"]
    >>> round(protein.amount, 1), protein.known
    (19.4, 1.0)
    >>> reckon("1 cup of moonlight").unresolved[0].text
    '1 cup of moonlight'
    """
    return _reckon(recipe if isinstance(recipe, Recipe) else Recipe(tuple(_lines(recipe))))


def _lines(given: str | Sequence[str]) -> Sequence[str]:
    return given.splitlines() if isinstance(given, str) else given


def amount(profile: Profile, key: str) -> Amount:
    """So much of something in what was reckoned, with its range.

    Parameters
    ----------
    profile : Profile
        As of `Facts.serving`.
    key : str
        A key of `nutrients()`: a nutrient, a sum of some, or an index.

    Returns
    -------
    Amount
        In the key's unit.

    Raises
    ------
    KeyError
        For a key that nothing is reckoned of.

    Examples
    --------
    >>> facts = reckon("100 g cooked millet")
    >>> round(amount(facts.serving, "kcal_per_gram").amount, 2)
    1.19
    """
    return amount_of(profile, key)


def explain(facts: Facts, key: str) -> str:
    """Where a number of one serving comes from, down to the rows of the food table.

    Parameters
    ----------
    facts : Facts
        A reckoned recipe.
    key : str
        A key of `nutrients()`.

    Returns
    -------
    str
        A line for each step: what it brings, how its grams are known, what cooking left of it, and
        the row with its source.

    Raises
    ------
    KeyError
        For a key that nothing is reckoned of.

    Examples
    --------
    >>> "barley-pearled-dry" in explain(reckon("100 g pearl barley"), "iron_mg")
    True
    """
    return as_lines(of_recipe(facts, key))


def person(**fields: Any) -> PersonGiven:
    """Who it is planned for.

    Parameters
    ----------
    **fields
        `sex` ("female" or "male"), `age_years`, `height_cm` and `weight_kg` are needed. Besides:
        `activity`, `life_stage`, `goal` ("hold", or an object with `kind`, `target_weight_kg` and
        `pace_kg_per_week`), `school`, `conditions`, `allergies`, `meals`, `orders`, and what
        `docs/schemas/targets.json` lists.

    Returns
    -------
    PersonGiven
        Checked by field; whether the formulas cover them is found out by `targets`.

    Raises
    ------
    CoreError
        For a field that is missing, of the wrong kind, or no known word; `field` names it.

    Examples
    --------
    >>> person(sex="female", age_years=44, height_cm=168, weight_kg=82).goal.kind
    'hold'
    >>> person(sex="female", age_years=44, height_cm=168)
    Traceback (most recent call last):
    ...
    nutrition.targets.person.OutOfRange: weight_kg is missing.
    """
    return decoded(PersonGiven, fields, OutOfRange)


def targets(who: PersonGiven) -> DayTargets:
    """A day's targets.

    Parameters
    ----------
    who : PersonGiven
        As `person` makes them.

    Returns
    -------
    DayTargets
        By key, each target with `low`, `aim` and `high` in the key's unit, its source and reason,
        and whose it is; the meals; where voices disagree; where the weight is heading.

    Raises
    ------
    CoreError
        For a figure that cannot be; and for a person whom the formulas do not cover, whose
        `refer_to` then says who plans for them.

    Notes
    -----
    An order stands over a condition, a condition over the school, the school over general guidance.
    It supports the work of a licensed practitioner and does not replace it.

    References
    ----------
    Each target names its source. Energy: Dietary Reference Intakes for Energy (2023).

    Examples
    --------
    >>> day = targets(person(sex="female", age_years=44, height_cm=168, weight_kg=82))
    >>> round(day["protein_g"].low, 1), day["protein_g"].unit
    (65.6, 'g')
    """
    return who.asked().day()


def cautions(
    who: PersonGiven,
    meals: Sequence[Sequence[str]] | Mapping[str, Sequence[str]] = (),
    supplements: Mapping[str, float] | None = None,
) -> CautionsAnswer:
    """What is to be warned of for a person and what they eat in a day.

    Parameters
    ----------
    who : PersonGiven
        As `person` makes them.
    meals : sequence or mapping of sequences of str, optional
        The lines of each meal, as they are eaten.
    supplements : mapping of str to float, optional
        What is taken besides: a dose a day by key, in the key's unit.

    Returns
    -------
    CautionsAnswer
        `cautions`, the gravest first, each with its reason and to whom to turn; lines that were
        `refused` as animal or `unresolved`; what is `unknown` of it where that could matter.

    Raises
    ------
    CoreError
        For what cannot be; `field` names it.

    Examples
    --------
    >>> her = person(sex="female", age_years=30, height_cm=170, weight_kg=64,
    ...              allergies=["sesame"])
    >>> [one.level for one in cautions(her, [["2 tbsp tahini"]]).cautions][:1]
    ['stop']
    """
    given = _meals(meals)
    asked = {"person": who, "meals": given, "supplements": supplements and dict(supplements)}
    return _cautions(asked)


def _meals(meals: Sequence[Sequence[str]] | Mapping[str, Sequence[str]]) -> object:
    if isinstance(meals, Mapping):
        return {name: list(lines) for name, lines in meals.items()}
    return [list(lines) for lines in meals]


def _no_file(name: str) -> str:
    raise ValueError(f"{name!r} is the name of a file: give the recipe itself")


def balance(
    parts: Sequence[Mapping[str, Any]],
    targets: Mapping[str, Mapping[str, Any]] | None = None,
    who: PersonGiven | None = None,
    meal: str | None = None,
    *,
    seconds: float | None = None,
) -> BalanceAnswer:
    """Portions of a bowl or a day that come nearest to targets.

    Parameters
    ----------
    parts : sequence of mappings
        Each a `food` by slug or name, or a `recipe` by its lines, with an `id` and its `grams`;
        `min_grams`, `max_grams`, `step_grams`, `locked` and `star` where they are wanted. [g]
    targets : mapping of str to mapping, optional
        By key: `min`, `aim` and `max` in the key's unit, `weight`, and `hard` for what is never
        broken. Those of the person where none are given.
    who : PersonGiven, optional
        Whom it is for: what they must not have is not proposed.
    meal : str, optional
        Which meal of theirs it is, or "day"; by its energy where none is said.
    seconds : float, optional
        How long it may look; without it the work is counted, and one question has one answer.

    Returns
    -------
    BalanceAnswer
        `portions` by id [g], `totals` by key, `proposals` of a few changes each, what is missed and
        why, and hints. `status` says whether it is proved to be the best.

    Raises
    ------
    CoreError
        For a problem that cannot be posed; `field` names what is wrong.

    Examples
    --------
    >>> bowl = [
    ...     {"id": "millet", "food": "millet cooked", "grams": 150,
    ...      "min_grams": 50, "max_grams": 300, "step_grams": 10},
    ...     {"id": "beans", "food": "white beans cooked", "grams": 80,
    ...      "min_grams": 0, "max_grams": 300, "step_grams": 10},
    ... ]
    >>> answer = balance(bowl, {"energy_kcal": {"min": 380, "max": 420}, "protein_g": {"min": 20}})
    >>> answer.status, round(answer.totals["protein_g"]) >= 20
    ('optimal', True)
    """
    asked = {
        "parts": [dict(one) for one in parts],
        "targets": None if targets is None else {key: dict(row) for key, row in targets.items()},
        "person": who,
        "meal": meal,
    }
    return balance_answer.solve(read_problem(asked, _no_file), seconds)


def plan_week(
    who: PersonGiven,
    dishes: Sequence[Mapping[str, Any]],
    *,
    skeleton: Mapping[str, Any] | None = None,
    pinned: Sequence[Mapping[str, Any]] = (),
    start: str | None = None,
    days: int = 7,
    weeks: int = 1,
    seconds: float | None = None,
) -> WeekAnswer:
    """A week of dishes for a person: what stands where, how much of it, and what is cooked when.

    Parameters
    ----------
    who : PersonGiven
        As `person` makes them.
    dishes : sequence of mappings
        Each a `recipe` by its lines or a `food`, with an `id`, the `kinds` of slot that it can
        stand in, and how many of its portions at `least` and at `most`.
    skeleton : mapping, optional
        The slots of each day; that of the person's school where none is given.
    pinned : sequence of mappings, optional
        What has its place already: `day` from 0, `meal`, `slot` from 0, `dish`, `count`.
    start : str, optional
        The first day, such as "2026-11-30".
    days : int, optional
        How many days.
    weeks : int, optional
        How many different weeks are wanted.
    seconds : float, optional
        How long it may look; without it the work is counted, and one question has one answer.

    Returns
    -------
    WeekAnswer
        `weeks`, the best first, each with its days, pots, what is missed and what would help;
        dishes `left_out` for this person, with why; `empty` kinds of slot.

    Raises
    ------
    CoreError
        For a week that cannot be posed; `field` names what is wrong.

    Examples
    --------
    >>> her = person(sex="female", age_years=44, height_cm=168, weight_kg=62)
    >>> lines = ["900 g cooked adzuki beans", "400 g cooked celeriac"]
    >>> stew = {"id": "stew", "recipe": {"lines": lines, "servings": 4}, "kinds": ["main"]}
    >>> found = plan_week(her, [stew], skeleton={"days": {"dinner": "main"}}, days=3)
    >>> [row.dish for row in found.weeks[0].days[0].meals["dinner"]]
    ['stew']
    """
    # Whole: its documentation.
    asked = {
        "person": who,
        "dishes": [dict(one) for one in dishes],
        "skeleton": None if skeleton is None else dict(skeleton),
        "pinned": [dict(one) for one in pinned],
        "start": start,
        "days": days,
        "weeks": weeks,
    }
    return week_answer.solve(read_week(asked, _no_file), seconds)


def follow(who: PersonGiven, **record: Any) -> FollowAnswer:
    """How somebody does who is followed.

    Parameters
    ----------
    who : PersonGiven
        As `person` makes them.
    **record
        `weighed`, a list of `{"on": date, "kg": number}`; `days`, what was eaten; `happened`;
        `blood`; `today`; and what `docs/schemas/follow.json` lists.

    Returns
    -------
    FollowAnswer
        How the weight stands against the pace expected [kg a week], its trend with its uncertainty,
        what could account for a stall, cautions, and what blood values mean.

    Raises
    ------
    CoreError
        For a record that cannot be; `field` names what is wrong.

    Examples
    --------
    >>> him = person(sex="male", age_years=52, height_cm=180, weight_kg=96)
    >>> follow(him, weighed=[{"on": "2026-11-03", "kg": 96.2}]).standing
    'too little to say'
    """
    return _follow({"person": who, **record})


def read_label(
    name: str,
    serving_size: str,
    printed: Mapping[str, str],
    **fields: Any,
) -> OwnFood:
    """A food out of what is printed on a package.

    Parameters
    ----------
    name : str
        What it is.
    serving_size : str
        The weight of a serving as printed: "32 g", "240 mL".
    printed : mapping of str to str
        Values as printed, by key of `nutrients()`: "8", "<1", "20 %".
    **fields
        `serving` ("2 tbsp"), `servings`, `kind` (what the values are of: "us" for those of a
        serving), `ingredients`, `claims`, and `like`, the slug of the food it is most like, from
        which what is not printed is filled.

    Returns
    -------
    OwnFood
        The `food` with its values per 100 g and the ranges that rounding and the law's tolerance
        leave; the `label` and `ingredients` as they were read.

    Raises
    ------
    CoreError
        For a label that cannot be; `errors` say why, by field.

    Notes
    -----
    A printed value is rounded, and the law lets what is inside lie apart from it: the range is of
    both.

    References
    ----------
    21 CFR 101.9(c) for rounding and (g) for tolerance, from memory.

    Examples
    --------
    >>> made = read_label("Lupini in brine", "100 g", {"energy_kcal": "120", "protein_g": "16"})
    >>> made.food.per_100_g("protein_g"), made.food.per_100_g("iron_mg")
    (16.0, None)
    """
    label = Label(name=name, serving_size=serving_size, printed=dict(printed), **fields)
    return own_food("own", label, food_table(), food_names())
