"""Fill what no source has of a food: from its other state, by the class of its protein, by its
kind. Every value says so in the food's notes and carries a range."""

from __future__ import annotations

import csv
import re
from collections.abc import Iterable, Iterator
from pathlib import Path

from sources import Row

STATES = ("raw", "dry", "cooked", "frozen", "canned-drained", "boiled", "baked")
# Taken over from another state per gram of dry matter, each with the share of it that heat leaves.
# From memory of the published retention factors.
FROM_TWIN = {
    "selenium_ug": 0.95,
    "vitamin_k_ug": 1.0,
    "choline_mg": 0.95,
    "folate_ug": 0.75,
    "zinc_mg": 0.95,
    "magnesium_mg": 0.9,
    "copper_mg": 0.95,
    "manganese_mg": 0.95,
    "phosphorus_mg": 0.92,
}
HEATED = re.compile(r"cooked|canned|boiled|baked")
# How far such a value may be off, either way. Common practice, no source. [share of it]
TWIN_SPREAD, CLASS_SPREAD = 0.3, 0.25
# A value by kind is an order of magnitude: between these shares of it.
KIND_LOW, KIND_HIGH = 0.25, 3.0
# Kinds that are so alike that every food of them may be filled; of others the staples alone.
PLAIN_KINDS = {"oil", "salt", "vinegar"}


def other_states(slug: str) -> Iterator[str]:
    """The slugs that the same food has in other states."""
    for state in STATES:
        if slug.endswith(f"-{state}"):
            stem = slug.removesuffix(f"-{state}")
            yield from (f"{stem}-{other}" for other in STATES if other != state)
            return


def _read(path: Path) -> list[dict[str, str]]:
    with path.open(newline="", encoding="utf-8") as file:
        return list(csv.DictReader(file))


class Fills:
    """The tables of classes and kinds. `low` and `high` are the ranges of what was filled last."""

    def __init__(self, folder: Path) -> None:
        self.classes = _read(folder / "amino_classes.csv")
        self.kinds = _read(folder / "by_kind.csv")
        self.little = _read(folder / "none_or_little.csv")
        staples = (folder.parent / "nutrition" / "data" / "staples.txt").read_text(encoding="utf-8")
        self.staples = {line for line in staples.splitlines() if not line.startswith("#")}
        self.low: Row = {}
        self.high: Row = {}

    def of(
        self, slug: str, food: dict[str, str], row: Row, twins: Iterable[tuple[str, Row]]
    ) -> list[str]:
        """Fills a row in place; what was filled, in words."""
        self.low, self.high = {}, {}
        found = (*self._from_twins(slug, row, twins), self._amino(slug, food, row))
        kind = ""
        if slug in self.staples or food["group"] in PLAIN_KINDS:
            kind = self._by_kind(food, row)
        return [note for note in (*found, kind, *self._little(food, row)) if note]

    def _little(self, food: dict[str, str], row: Row) -> Iterator[str]:
        """What plants have not, or hardly: B12, vitamin C of what is dry, ALA by the fat. What was
        fortified, and what only labels speak of, may hold some."""
        state = food["state"].split(",")[0]
        packaged = food["source"] == "label" and (food["group"], state) != ("soy", "raw")
        if "fortified" in food["tags"].split("|") or packaged:
            return
        for rule in self.little:
            key, per = rule["key"], rule["per"]
            if key in row or food["group"] not in rule["groups"].split("|"):
                continue
            if rule["states"] and state not in rule["states"].split("|"):
                continue
            if per and per not in row:
                continue
            times = row[per] if per else 1.0
            low, value, high = (float(rule[end]) * times for end in ("low", "value", "high"))
            row[key], self.low[key], self.high[key] = value, low, high
            if value > 0:
                yield f"{key.rsplit('_', 1)[0]}: {rule['source']}"

    def _put(self, row: Row, key: str, value: float, low: float, high: float) -> None:
        row[key] = value
        self.low[key], self.high[key] = value * low, value * high

    def _from_twins(self, slug: str, row: Row, twins: Iterable[tuple[str, Row]]) -> Iterator[str]:
        if row.get("water_g", 100.0) > 99.0:
            return
        for name, twin in twins:
            if "water_g" not in twin or twin["water_g"] > 99.0:
                continue
            ratio = (100.0 - row["water_g"]) / (100.0 - twin["water_g"])
            heats = (bool(HEATED.search(slug)), bool(HEATED.search(name)))
            took = []
            for key, kept in FROM_TWIN.items():
                if key not in row and key in twin:
                    share = (
                        kept
                        if heats == (True, False)
                        else 1 / kept
                        if heats == (False, True)
                        else 1
                    )
                    spread = TWIN_SPREAD
                    self._put(row, key, twin[key] * ratio * share, 1 - spread, 1 + spread)
                    took.append(key.rsplit("_", 1)[0])
            if took:
                yield f"{', '.join(took)} per g dry matter from {name}"

    def _amino(self, slug: str, food: dict[str, str], row: Row) -> str:
        if "lysine_g" in row or not row.get("protein_g"):
            return ""
        for kind in self.classes:
            groups = kind["groups"].split("|")
            if (groups == ["."] or food["group"] in groups) and re.search(kind["pattern"], slug):
                for key, value in kind.items():
                    if key.endswith("_g") and key not in row:
                        amount = float(value) / 1000.0 * row["protein_g"]
                        self._put(row, key, amount, 1 - CLASS_SPREAD, 1 + CLASS_SPREAD)
                return f"amino acids per g protein of {kind['class']} as a class, from memory"
        return ""

    def _by_kind(self, food: dict[str, str], row: Row) -> str:
        for kind in self.kinds:
            group, _, state = kind["pattern"].removeprefix("group:").partition(" state:")
            if food["group"] != group or state not in ("", food["state"]):
                continue
            took = []
            for pair in kind["values"].split("; "):
                key, value = pair.split()
                if key not in row:
                    self._put(row, key, float(value), KIND_LOW, KIND_HIGH)
                    took.append(key.rsplit("_", 1)[0])
            return f"{', '.join(took)} of {kind['source']}, from memory" if took else ""
        return ""
