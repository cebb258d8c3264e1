"""How well a row of the table agrees with how a food is said to be: dry or cooked, salted or not,
drained, smoked, sprouted. A word that contradicts a row excludes it."""

# Whole: the marks of a row and of a phrase are weighed against each other by one set of rules.

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from nutrition.composition.food_words import Apart
from nutrition.composition.foods import Food
from nutrition.composition.measured_state import plain_state

# What a row costs that is excluded; and from this on it is one.
OUT = 100.0
# A fruit that is not said to be dried is not.
DRIED_UNSAID = 1.0
# Canned or bottled, these are salted unless they say otherwise.
SALTED_CANNED = {"vegetable", "leafy green", "starchy vegetable", "mushroom", "legume", "nut"}
SALTED = {"broth", "condiment", "fermented vegetable", "bread"}
GROWN = {"grain", "pasta", "legume"}
# Raw and dry are one of these.
UNCOOKED_DRY = GROWN | {"nut", "seed", "flour", "cocoa", "soy", "sweetener"}
# Words for heat that mean much the same to what is in a food.
SAME_HEAT = (
    {"roasted", "baked", "grilled", "toasted", "dry roasted"},
    {"boiled", "steamed", "blanched", "parboiled", "pressure cooked", "stewed", "wilted"},
    {"fried", "oil roasted"},
)


@dataclass
class Fit:
    """What a row costs beside the name, and what is to be said of it; `doubt` where the food wants
    a look."""

    cost: float = 0.0
    notes: tuple[str, ...] = ()
    doubt: bool = False

    def add(self, cost: float, note: str = "", *, doubt: bool = False) -> None:
        self.cost += cost
        if note:
            self.notes += (note,)
        self.doubt = self.doubt or doubt


def fit(said: Apart, food: Food, row: Apart) -> Fit:
    """How a row of the table, its name taken apart as `row`, fits what was `said`."""
    out = Fit()
    for axis in _AXES:
        axis(said, food, row, out)
        if out.cost >= OUT:
            break
    return out


def states_of(food: Food, row: Apart) -> frozenset[str]:
    """The states of a row: raw, dry, cooked, canned, frozen, pickled; none for what is ready."""
    named = row.values("state")
    own = {food.state.split(",")[0]} - {"ready"}
    return frozenset({"dry" if one == "dried" else one for one in named | own} - {"fresh"})


# What was eaten was cooked at home sooner than out of a can.
CANNED_IS_READY = 0.4
# Pasta is the dried kind, unless it says fresh.
FRESH_PASTA_UNSAID = 0.6


def _state(said: Apart, food: Food, row: Apart, out: Fit) -> None:
    have = states_of(food, row)
    wanted = set(said.values("state"))
    if said.values("ready") and food.group in GROWN:
        if "canned" in have and not wanted:
            # a soup out of a can is ready, as what was cooked is
            out.add(CANNED_IS_READY)
            return
        wanted.add("cooked")
    if not wanted:
        heat = said.values("heat")
        if food.group in GROWN:
            # a roasted grain is not cooked yet
            heat = heat - {"roasted", "toasted"}
        heated = heat and "cooked" in have
        lying = bool(said.values("in") & row.values("in")) and bool(have & {"canned", "pickled"})
        out.add(0.0 if heated or lying else _unsaid_state(food, have))
        return
    if food.group in GROWN and "cooked" in wanted and wanted & {"dry", "dried", "uncooked"}:
        # words that conflict: it is asked, and no third row is taken
        out.add(OUT)
        return
    for one in wanted:
        _one_state(one, food, have, out)
    if food.group == "pasta" and "fresh" in row.values("state") - wanted:
        out.add(FRESH_PASTA_UNSAID)
    more = have - wanted - {"dry"}
    out.add(
        sum({"frozen": 0.5, "canned": 0.6, "cooked": 0.8, "raw": 0.1}.get(one, 0.2) for one in more)
    )


def _unsaid_state(food: Food, have: frozenset[str]) -> float:
    plain = plain_state(food)
    if not have or (plain and have == {plain}):
        return 0.0
    if food.group in ("nut", "seed") and have <= {"raw", "dry"}:
        return 0.0
    if plain is None and have == {"dry"}:
        return DRIED_UNSAID if food.group == "dried fruit" else 0.0
    costs = {"canned": 1.2, "pickled": 2.0, "frozen": 1.0}
    return sum(costs.get(one, 0.6 if plain else 0.05) for one in have - {plain})


# A grain or bean that is ready, puffed or roasted, is neither dry nor cooked.
READY_FOR_GROWN = 0.9


def _one_state(one: str, food: Food, have: frozenset[str], out: Fit) -> None:
    if not have and food.group in GROWN and one in ("dry", "dried", "uncooked", "cooked"):
        out.add(READY_FOR_GROWN)
    if one in have or not have:
        return
    if one in ("raw", "uncooked"):
        dry = food.group in UNCOOKED_DRY or one == "uncooked"
        out.add(0.0 if have <= ({"dry", "raw"} if dry else {"raw"}) else OUT)
        if one == "uncooked" and have == {"dry"} and plain_state(food) == "raw":
            # dried mushrooms are not what is meant by mushrooms that were not cooked
            out.add(1.0)
    elif one == "fresh":
        out.add(0.0 if "raw" in have and "frozen" not in have else OUT)
    elif one in ("dry", "dried"):
        held = "dry" in have or ("raw" in have and food.group in ("nut", "seed"))
        out.add(0.0 if held else OUT)
    elif one == "cooked" and "canned" in have:
        out.add(1.5, "canned counted for cooked", doubt=True)
    elif one == "canned" and "cooked" in have and food.group == "legume":
        out.add(1.5, "cooked counted for canned: its salt is not in it", doubt=True)
    elif one == "frozen" and have == {"raw"}:
        out.add(0.6, "frozen counted as fresh")
    else:
        out.add(OUT)


def _liquid(said: Apart, food: Food, row: Apart, out: Fit) -> None:
    wanted, have = said.values("liquid"), row.values("liquid")
    canned = "canned" in states_of(food, row)
    if "undrained" in wanted:
        out.add(OUT if have & {"drained", "rinsed"} else 0.0 if have else 0.3)
    elif "drained and rinsed" in wanted:
        # only what comes in a can is drained and rinsed
        pot = food.group == "legume" and not canned
        out.add(OUT if "undrained" in have else 1.5 if pot else 0.0 if "rinsed" in have else 0.4)
    elif "rinsed" in wanted and ("canned" in said.values("state") or canned):
        out.add(OUT if "undrained" in have else 0.0 if "rinsed" in have else 0.4)
    elif "drained" in wanted:
        out.add(OUT if "undrained" in have else 0.0 if "drained" in have else 0.2)
    elif canned:
        out.add(0.4 if "rinsed" in have else 0.3 if "undrained" in have else 0.0)
    elif "rinsed" in have:
        out.add(0.5)


def _salt(said: Apart, food: Food, row: Apart, out: Fit) -> None:
    wanted, have = said.values("salt"), row.values("salt")
    canned = "canned" in states_of(food, row) and food.group in SALTED_CANNED
    salted = "salted" in have or (not have and (canned or food.group in SALTED))
    if "unsalted" in wanted:
        out.add(OUT if salted or "low" in have else 0.0)
    elif "low" in wanted:
        out.add(0.0 if "low" in have else OUT if salted or not have else 2.0)
    elif "salted" in wanted:
        out.add(0.0 if salted else OUT)
    elif have:
        out.add({"salted": 0.8, "low": 1.0}.get(next(iter(have)), 0.9 if canned else 0.1))


def _sugar(said: Apart, food: Food, row: Apart, out: Fit) -> None:
    wanted, have = said.values("sugar"), row.values("sugar")
    sweet = "sweetened" in have or (not have and "added sugar" in food.tags)
    if "unsweetened" in wanted:
        out.add(OUT if sweet else 0.0 if have else 0.2)
    elif "sweetened" in wanted:
        out.add(0.0 if sweet else OUT)
    elif "sweetened" in have:
        out.add(0.5 if food.group == "dried fruit" else 1.0)
    elif "unsweetened" in have:
        out.add(0.05)


def _apart_axis(axis: str, unsaid: dict[str, float]) -> Callable[[Apart, Food, Apart, Fit], None]:
    """An axis on which what is said must be what the row says, and what the row says unasked costs
    so much."""

    def compare(said: Apart, _food: Food, row: Apart, out: Fit) -> None:
        wanted, have = said.values(axis), row.values(axis)
        if wanted:
            out.add(0.0 if wanted & have else OUT)
        else:
            out.add(sum(unsaid.get(one, 2.0) for one in have))

    return compare


# A smoked one that has no row of its own is the plain one, but for its salt.
SMOKED_UNLISTED, SMOKED_PLAIN = 0.8, frozenset({"soy", "seitan", "nut"})


def _smoke(said: Apart, food: Food, row: Apart, out: Fit) -> None:
    wanted, have = said.values("smoke"), row.values("smoke")
    if have and not wanted:
        out.add(3.0)
    elif wanted and not have and food.group not in SMOKED_PLAIN:
        out.add(OUT)
    elif wanted and not have:
        out.add(SMOKED_UNLISTED, "smoked: what salt it took is not known", doubt=True)


def _fat(said: Apart, food: Food, row: Apart, out: Fit) -> None:
    wanted, have = said.values("fat"), row.values("fat") - {"full"}
    if "oil free" in wanted:
        # what has no oil in it need not say so; what has, or may have, is another food
        oily = "oil" in food.tags or "oil" in row.values("in")
        asks = not have and food.group in OILED
        out.add(OUT if oily else 0.0 if "oil free" in have or not asks else 0.3)
        if asks and not oily and "oil free" not in have:
            out.add(0.0, "without oil: the row does not say so", doubt=True)
        return
    if wanted == {"light"} and food.group in LIGHT_IS_COLOR:
        out.add(2.0 * len(have))
        return
    if wanted <= {"full"}:
        unlike = 0.05 if wanted and "full" not in row.values("fat") else 0.0
        out.add(OUT if wanted and have else 1.5 * len(have) + unlike)
    else:
        out.add(0.0 if wanted & have else OUT)


def _fort(said: Apart, food: Food, row: Apart, out: Fit) -> None:
    wanted, have = said.values("fort"), row.values("fort")
    if not have and "fortified" in food.tags:
        have = frozenset({"fortified"})
    if wanted:
        if have:
            out.add(0.0 if wanted & have else OUT)
        else:
            out.add(0.4, "the row does not say whether it is fortified", doubt=True)
    else:
        out.add(0.8 if "unfortified" in have else 0.0)


def _enrich(said: Apart, food: Food, row: Apart, out: Fit) -> None:
    wanted, have = said.values("enrich"), row.values("enrich")
    if "enriched" in wanted:
        out.add(0.0 if "enriched" in have else OUT)
    elif "unenriched" in wanted:
        out.add(OUT if "enriched" in have else 0.0)
    else:
        out.add(0.3 if "enriched" in have else 0.0)


# Light tahini and light molasses are pale, not lean.
LIGHT_IS_COLOR = frozenset({"nut butter", "sweetener", "vinegar", "drink"})
# Bought, these hold oil unless they say otherwise.
OILED = frozenset({"condiment", "bread", "plant milk"})
FRIED = ("fried", "oil roasted")
# These are how a food is bought, wherever in a line they stand.
BOUGHT_SO = (*FRIED, "dry roasted")


def same_heat(one: str, others: frozenset[str]) -> bool:
    """Whether a word for heat means much the same as one of others."""
    return one in others or any(one in like and like & others for like in SAME_HEAT)


# What is mashed was cooked before.
MASHED_WHEN_COOKED = frozenset({"vegetable", "starchy vegetable"})
# "Buckwheat, raw" is not the roasted one, though both are dry.
RAW_IS_NOT_HEATED = 1.0


def _heat(said: Apart, food: Food, row: Apart, out: Fit) -> None:
    wanted, have = said.values("heat"), row.values("heat")
    later = said.values("then")
    if later and food.group in GROWN:
        wanted = wanted | later
    elif later and food.state == "ready":
        out.add(0.0 if any(same_heat(one, have) for one in later) else 0.1)
        return
    if not wanted:
        if have and "raw" in said.values("state"):
            out.add(RAW_IS_NOT_HEATED)
        out.add(sum({"fried": 2.0, "oil roasted": 2.0, "toasted": 1.0}.get(h, 0.6) for h in have))
        return
    for one in wanted:
        if one in have:
            continue
        if same_heat(one, have):
            out.add(0.2)
        elif have:
            out.add(OUT)
        elif "cooked" in states_of(food, row):
            if one == "dry roasted":
                out.add(OUT)
            fried = one in FRIED
            said_too = "the oil it was fried in is not in it" if fried else ""
            out.add(0.3, said_too, doubt=fried)
        elif food.state in ("canned", "ready"):
            out.add(OUT if one in FRIED else 0.7)
        elif one in FRIED:
            out.add(1.0, "the oil it was fried in is not in it", doubt=True)
        elif one in BOUGHT_SO:
            out.add(1.0 if food.group in ("nut", "seed") else OUT)
        else:
            # nuts are roasted as they are; boiled ones are another food
            boiled = food.group in ("nut", "seed") and not same_heat(one, frozenset({"roasted"}))
            out.add(1.5 if boiled else 0.5)


def _wet(said: Apart, food: Food, row: Apart, out: Fit) -> None:
    wanted, have = said.values("wet"), row.values("wet")
    if "soaked" in wanted and food.group == "legume" and "cooked" in states_of(food, row):
        out.add(0.2, "soaked counted as cooked: say dry if it was weighed dry", doubt=True)
    elif have and not wanted:
        out.add(1.5)
    elif wanted and not have:
        dry = "dry" in states_of(food, row) and not said.values("state") & {"dry", "dried"}
        if dry and wanted & {"rehydrated", "rehydrated squeezed"}:
            out.add(0.6, "counted as weighed dry, and soaked then", doubt=True)
        else:
            out.add(0.2)


def _grind(said: Apart, food: Food, row: Apart, out: Fit) -> None:
    wanted, have = said.values("grind"), row.values("grind")
    if "whole" in wanted and "ground" in have:
        out.add(OUT)
    elif "ground" in have and not wanted and food.group != "spice":
        out.add(0.5)
    elif "ground" in wanted and not have:
        out.add(0.2 if food.group == "spice" else 0.5)


def _mash(said: Apart, food: Food, row: Apart, out: Fit) -> None:
    wanted, have = said.values("mash"), row.values("mash")
    if {"mashed", "pureed"} & wanted and food.state == "raw" and food.group in MASHED_WHEN_COOKED:
        out.add(0.8)
    out.add(0.0 if wanted & have else 1.0 * len(have))


# A row that does not say so is not the one with its skin, where there is one that does.
SKIN_UNSAID = 0.7


def _skin(said: Apart, food: Food, row: Apart, out: Fit) -> None:
    wanted, have = said.values("skin"), row.values("skin")
    if "on" in wanted:
        out.add(OUT if "none" in have else 0.0 if "on" in have else SKIN_UNSAID)
    elif "none" in wanted:
        out.add(0.5 if "on" in have else 0.0 if have else 0.1)
    else:
        out.add(0.4 if "none" in have else 0.0)


def _flavor(said: Apart, food: Food, row: Apart, out: Fit) -> None:
    wanted, have = said.values("flavor") - {"plain"}, row.values("flavor") - {"plain"}
    if wanted:
        out.add(0.0 if wanted <= have else OUT)
    elif have:
        out.add(OUT if said.said("flavor", "plain") else 2.0)


# What lies in brine or juice is the row that says so, and what is in a can or jar.
LYING_UNSAID = 1.3


def _in(said: Apart, food: Food, row: Apart, out: Fit) -> None:
    wanted, have = said.values("in"), row.values("in")
    if "oil" in wanted:
        out.add(0.0 if "oil" in have else OUT)
    elif "dry" in wanted:
        out.add(OUT if "oil" in have else 0.0 if "dry" in have else 0.1)
    elif wanted:
        out.add(0.0 if wanted & have else OUT if have else LYING_UNSAID)
    else:
        out.add(1.5 if "oil" in have else 0.2 if have else 0.0)


_AXES = (
    _state,
    _liquid,
    _salt,
    _sugar,
    _fat,
    _fort,
    _enrich,
    _smoke,
    _apart_axis("sprout", {"sprouted": 3.0}),
    _heat,
    _wet,
    _grind,
    _mash,
    _skin,
    _flavor,
    _in,
)
