"""The ingredient list of a package, read: what is in it, in which order, and what that means."""

from __future__ import annotations

import re
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field

from nutrition.composition.allergens import ALLERGENS
from nutrition.composition.food_names import FoodNames
from nutrition.composition.food_words import words
from nutrition.composition.foods import Food
from nutrition.labels.item_list import Item, items_in, statements
from nutrition.labels.terms import Term, label_terms
from nutrition.written.naming import name_food

# An item that says so is made of plants, whatever milk or cheese it names.
_OF_PLANTS = frozenset({"vegan", "nondairy", "eggless", "imitation"})
_PLANT_RUNS = (("plant", "based"), ("dairy", "free"), ("non", "dairy"), ("egg", "free"))
_PLANT_SOURCES = frozenset({"lichen", "vegan", "vegetable", "plant", "vegetal", "mushroom"})
_WHOLE = frozenset({"whole", "wholemeal", "wholegrain", "wholewheat"})
# What is made of many foods, and then is what the word before it says.
_MADE_OF_MANY = frozenset(
    "flour starch milk cream butter cheese yogurt yoghurt curd custard noodle pasta bread".split()
)
_OF_WHEAT = frozenset("wheat white bread cake pastry pizza plain strong biscuit".split())
_MADE_OF = frozenset({"nut", "seed", "grain", "legume", "soy", "nut butter"})
# What was done to an ingredient that names no other food.
_PROCESS = frozenset(
    "pasteurised pasteurized concentrated reconstituted rehydrated from concentrate organic "
    "certified hydrated cultured fermented filtered".split()
)
# Said of an ingredient and changing nothing of what it is.
_QUIET = frozenset(
    "organic certified fair trade kosher non gmo sustainably sourced natural pure fresh dried dry "
    "roasted toasted ground powder powdered flake crushed whole chopped diced sliced concentrated "
    "filtered from of the and or a an with for in to flavor color added".split()
)


@dataclass(frozen=True, kw_only=True)
class Ingredients:
    """What an ingredient list says.

    `classes` and `fortified` name, by class and by nutrient, the ingredients that belong there;
    `animals` those from animals by kind. `unread` are ingredients of which nothing is known here.
    """

    items: tuple[Item, ...] = ()
    classes: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    fortified: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    allergens: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    may_contain: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    animals: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    unread: tuple[str, ...] = ()
    notes: Mapping[str, str] = field(default_factory=dict)

    @property
    def given(self) -> bool:
        """Whether there is a list at all: without one nothing of this is known."""
        return bool(self.items)

    @property
    def gluten_of_oats_alone(self) -> bool:
        """Whether the gluten that is in it comes of oats, which can be kept apart from wheat."""
        names = self.allergens.get("gluten", ())
        return bool(names) and all("oat" in name.lower() for name in names)

    def place_of(self, name: str) -> int:
        """Which place an ingredient has in the list, 1 for the first; the list goes by weight (21
        CFR 101.4(a)). Raises KeyError for what is not in it."""
        for place, item in enumerate(self.items, 1):
            if any(name == one.name for one in item.walk()):
                return place
        raise KeyError(name)


def read_ingredients(text: str, names: FoodNames) -> Ingredients:
    """The list as it stands on the package, with its “contains” and “may contain”. `names` are the
    foods that ingredients are looked for among."""
    listed, contains, may = statements(text)
    items = tuple(items_in(listed))
    out = _Found()
    for item in items:
        for one in item.walk():
            out.add(one, names)
    declared = _allergens_named(contains)
    for allergen in sorted(declared):
        out.put(out.allergens, allergen, "declared on the package")
    for allergen in sorted(_allergens_named(may)):
        out.put(out.may_contain, allergen, "declared on the package")
    traces = {key: rows for key, rows in out.may_contain.items() if key not in out.allergens}
    return Ingredients(
        items=items,
        classes=_frozen(out.classes),
        fortified=_frozen(out.fortified),
        allergens=_frozen(out.allergens),
        may_contain=_frozen(traces),
        animals=_frozen(out.animals),
        unread=tuple(dict.fromkeys(out.unread)),
        notes=out.notes,
    )


Kept = dict[str, list[str]]


def _frozen(kept: Kept) -> dict[str, tuple[str, ...]]:
    return {key: tuple(dict.fromkeys(rows)) for key, rows in kept.items()}


class _Found:
    """What is found while a list is gone through."""

    def __init__(self) -> None:
        self.classes: Kept = {}
        self.fortified: Kept = {}
        self.allergens: Kept = {}
        self.may_contain: Kept = {}
        self.animals: Kept = {}
        self.notes: dict[str, str] = {}
        self.unread: list[str] = []

    def put(self, kept: Kept, key: str, name: str) -> None:
        kept.setdefault(key, []).append(name)

    def add(self, item: Item, names: FoodNames) -> None:
        said = words(item.name)
        if not said:
            return
        if len(said) == 1 and said[0] in _MADE_OF_MANY and len(item.inside) == 1:
            # "flour (rice)" is rice flour
            said = [*words(item.inside[0].name), *said]
        terms = [term for term in label_terms().within(said) if not _of_another(term, said, names)]
        # "non-dairy" creamer may hold what is of milk
        hedged = any("may:milk" in term.classes for term in terms)
        plants = _of_plants(said) and not hedged
        # what stands in brackets after it says which, and that it is of a plant
        told = {word for one in item.inside for word in words(one.name)}
        known = {"may phosphate"} if told else set()
        if told & _PLANT_SOURCES or plants:
            known.add("may animal")
        if _WHOLE.intersection(said):
            known.add("refined")
        for term in terms:
            self._term(item.name, term, plants, known)
        covered = {word for term in terms for word in term.words}
        rest = [word for word in said if word not in covered and word not in _QUIET]
        if terms and not rest:
            return
        named = name_food(" ".join(word for word in said if word not in _PROCESS), names)
        if named.food is not None and not named.animal:
            # what it is made of is told by its own list, where it has one
            self._food(item.name, named.food, sure=named.sure and not terms and not item.inside)
        elif named.animal and not terms and not plants:
            self.put(self.animals, "meat", item.name)
        elif not terms and not item.inside:
            self.unread.append(item.name)

    def _term(self, name: str, term: Term, plants: bool, known: Collection[str]) -> None:
        if term.note:
            self.notes.setdefault(name, term.note)
        for one in sorted(term.classes - set(known)):
            kind, colon, about = one.partition(":")
            if not colon:
                self.put(self.classes, one, name)
            elif kind == "fortified":
                self.put(self.fortified, about, name)
            elif kind == "may":
                self.put(self.may_contain, about, name)
            elif plants and (kind == "animal" or about in ("milk", "egg")):
                continue
            elif kind == "animal":
                self.put(self.animals, about, name)
            else:
                self.put(self.allergens, about, name)

    def _food(self, name: str, food: Food, sure: bool) -> None:
        for allergen in food.allergens:
            self.put(self.allergens, allergen, name)
        if sure:
            for tag in food.tags:
                if tag in ("oil", "added salt", "added sugar", "refined"):
                    self.put(self.classes, tag, name)


def _of_another(term: Term, said: Sequence[str], names: FoodNames) -> bool:
    """Whether a term of one word is not meant because the word before it says of what: flour of
    lentils is no wheat flour, milk of oats no milk."""
    if len(term.words) != 1 or term.words[0] not in _MADE_OF_MANY:
        return False
    at = list(said).index(term.words[0])
    if at == 0 or said[at - 1] in _OF_WHEAT:
        return False
    rows = names.by_word.get(said[at - 1], ())
    # flour is made of every starch; milk and butter are told only by what is like a nut or a grain
    flour = term.words[0] in ("flour", "starch")
    return any(flour or names.rows[one].food.group in _MADE_OF for one in rows)


def _of_plants(said: Sequence[str]) -> bool:
    pairs = set(zip(said, said[1:], strict=False))
    return not _OF_PLANTS.isdisjoint(said) or any(run in pairs for run in _PLANT_RUNS)


def _allergens_named(text: str) -> set[str]:
    """The allergens that a statement names."""
    out = set()
    # "nuts, milk" are two
    for part in re.split(r"[,;:()]|\band\b|\bor\b|&|/", text):
        for term in label_terms().within(words(part)):
            for one in term.classes:
                kind, _colon, about = one.partition(":")
                if kind == "allergen":
                    out.add(about)
        out |= {name for name in ALLERGENS if words(name) == words(part)}
    return out
