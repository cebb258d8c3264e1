"""Build nutrition/data/portions.csv and shares.csv: what a cup, a clove, a slice or a can of each
food weighs."""

from __future__ import annotations

import argparse
import csv
import re
from collections.abc import Iterator
from functools import cache
from pathlib import Path

import sources

HERE = Path(__file__).resolve().parent
OUT = HERE.parent / "nutrition" / "data"

# How far one of these strays from the weight in the table, either way.
SPREAD = {
    "cup": 0.08,
    "tbsp": 0.10,
    "tsp": 0.10,
    "can": 0.08,
    "package": 0.05,
    "block": 0.08,
    "sheet": 0.15,
}
SPREAD_PIECE = 0.20
SPREAD_SMALL_PIECE = 0.30
SMALL_PIECES = {
    "clove",
    "slice",
    "leaf",
    "sprig",
    "bunch",
    "head",
    "handful",
    "knob",
    "thumb",
    "pinch",
    "dash",
    "squeeze",
    "wedge",
    "juice of 1",
    "zest of 1",
}

CUP_GROUPS = {
    "vegetable",
    "leafy green",
    "starchy vegetable",
    "mushroom",
    "fruit",
    "dried fruit",
    "fruit juice",
    "grain",
    "pasta",
    "legume",
    "flour",
    "nut",
    "seed",
    "plant milk",
    "sea vegetable",
    "fermented vegetable",
}
SPOON_GROUPS = {"spice", "dried herb"}


def read(name: str) -> list[dict[str, str]]:
    with (HERE / name).open(newline="", encoding="utf-8") as file:
        return list(csv.DictReader(file))


@cache
def matching(pattern: str) -> re.Pattern[str]:
    """The pattern, compiled once: there are more than the library keeps by itself."""
    return re.compile(pattern)


def own_unit(food: dict[str, str], grams: float) -> str | None:
    """Which unit the source's unnamed portion weight must be, judged by group and size; None when
    it is not clear."""
    if food["group"] in SPOON_GROUPS:
        return "tsp" if grams < 5 else None
    if food["group"] in CUP_GROUPS:
        leafy = food["group"] in ("leafy green", "sea vegetable") and food["state"] == "raw"
        if 100 <= grams <= 290 or (leafy and 20 <= grams <= 90):
            return "cup"
    return None


def density_class(food: dict[str, str], classes: list[dict[str, str]]) -> dict[str, str] | None:
    for by_slug in (True, False):
        for row in classes:
            pattern = row["pattern"]
            if pattern.startswith("slug:") != by_slug:
                continue
            if by_slug:
                if re.search(pattern[5:], food["slug"]):
                    return row
                continue
            group, _, state = pattern.partition(" state:")
            if food["group"] in group.removeprefix("group:").split("|") and state in (
                "",
                food["state"],
            ):
                return row
    return None


def rows_of(
    food: dict[str, str],
    first: sources.FirstSource,
    own: list[dict[str, str]],
    classes: list[dict[str, str]],
) -> Iterator[list[str]]:
    slug, seen = food["slug"], set()
    for row in own:
        if not matching(row["pattern"]).search(slug):
            continue
        measure, form, grams = row["measure"], row["form"], float(row["grams"])
        spread = SPREAD.get(
            measure, SPREAD_SMALL_PIECE if measure in SMALL_PIECES else SPREAD_PIECE
        )
        if (measure, form) in seen:
            continue
        seen.add((measure, form))
        low, high = row["low"] or grams * (1 - spread), row["high"] or grams * (1 + spread)
        ends = (f"{float(low):.4g}", f"{float(high):.4g}")
        yield [slug, measure, form, f"{grams:g}", *ends, row["source"]]
    if food["source"] in ("sr", "fnd"):
        record = first.find(food["source"], food["source_description"])
        if record["portion_gram_weight"]:
            grams = float(record["portion_gram_weight"])
            unit = own_unit(food, grams)
            if unit and (unit, "") not in seen:
                seen.add((unit, ""))
                spread = SPREAD[unit] * 1.5
                yield [
                    slug,
                    unit,
                    "",
                    f"{grams:g}",
                    f"{grams * (1 - spread):.4g}",
                    f"{grams * (1 + spread):.4g}",
                    "portion weight of the source row, its unit judged by us",
                ]
    if ("cup", "") not in seen and food["group"] != "supplement":
        row = density_class(food, classes)
        if row is not None:
            yield [
                slug,
                "cup",
                "",
                row["grams_per_cup"],
                row["low"],
                row["high"],
                f"by kind ({row['class']}), common practice, no source",
            ]


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("first", type=Path, help="fooddata.csv of the first data set")
    args = parser.parse_args()
    first = sources.FirstSource(args.first)
    foods, own, classes, shares = (
        read(name) for name in ("selection.csv", "portions.csv", "density.csv", "shares.csv")
    )
    with (OUT / "portions.csv").open("w", newline="", encoding="utf-8") as file:
        writer = csv.writer(file, lineterminator="\n")
        writer.writerow(["slug", "measure", "form", "grams", "low", "high", "source"])
        for food in sorted(foods, key=lambda food: food["slug"]):
            writer.writerows(rows_of(food, first, own, classes))
    with (OUT / "shares.csv").open("w", newline="", encoding="utf-8") as file:
        writer = csv.writer(file, lineterminator="\n")
        writer.writerow(["slug", "kind", "share", "low", "high", "source"])
        for food in sorted(foods, key=lambda food: food["slug"]):
            for row in shares:
                if matching(row["pattern"]).search(food["slug"]):
                    writer.writerow(
                        [
                            food["slug"],
                            row["kind"],
                            row["share"],
                            row["low"],
                            row["high"],
                            row["source"],
                        ]
                    )
                    break
    unused = [
        row["pattern"]
        for row in own + shares
        if not any(matching(row["pattern"]).search(food["slug"]) for food in foods)
    ]
    if unused:
        raise SystemExit(f"patterns that no food matches: {sorted(set(unused))}")


if __name__ == "__main__":
    main()
