"""Build nutrition/data/foods.csv from the selection and the two open data sets."""

# Whole: the table is made in one run, a step a function.

from __future__ import annotations

import argparse
import csv
import re
import sys
from collections.abc import Iterator
from pathlib import Path

import derive
import fills
import sources
from sources import Row

HERE = Path(__file__).resolve().parent
ROOT = HERE.parent
sys.path.insert(0, str(ROOT))
from nutrition.composition.nutrients import AMINO_ACIDS, KEYS  # noqa: E402
from tools.table_check import atwater_kcal  # noqa: E402

OUT = ROOT / "nutrition" / "data"
FATTY = ("monounsaturated_fat_g", "polyunsaturated_fat_g", "linoleic_g", "ala_g")
PER_DRY_MATTER = ("phytate_mg", "oxalate_mg")
SOURCE_NAMES = {
    "sr": "US government composition data, SR Legacy",
    "fnd": "US government composition data, Foundation Foods",
    "fndds": "US government composition data, survey foods",
    "label": "US government composition data, label records, median of the kind",
    "ifct": "Indian Food Composition Tables 2017",
    "computed": "computed from another row",
    "parts": "computed from its parts",
    "memory": "from memory of published tables",
    "reference": "by definition of the dose",
}
DOSES: dict[str, Row] = {
    "vitamin-b12-tablet-1000-ug": {"vitamin_b12_ug": 1000},
    "vitamin-b12-tablet-50-ug": {"vitamin_b12_ug": 50},
    "vitamin-d3-tablet-25-ug-1000-iu": {"vitamin_d_ug": 25},
    "iodine-drops-or-tablet-150-ug": {"iodine_ug": 150},
    "algae-oil-capsule-250-mg-dha-epa": {"dha_g": 0.167, "epa_g": 0.083, "energy_kcal": 5},
    "iron-tablet-65-mg-elemental": {"iron_mg": 65},
    "zinc-tablet-15-mg": {"zinc_mg": 15},
    "calcium-tablet-500-mg": {"calcium_mg": 500},
}
# A tablet or capsule is reckoned as 1 g, so that one piece is one dose.
DOSE_PER_100_G = 100.0
UNPROCESSED = {
    "vegetable",
    "leafy green",
    "starchy vegetable",
    "mushroom",
    "fruit",
    "dried fruit",
    "grain",
    "legume",
    "nut",
    "seed",
    "fresh herb",
    "dried herb",
    "spice",
    "sea vegetable",
    "oil",
    "vinegar",
    "salt",
    "flour",
    "soy",
}


# A donor of memory_donors.csv is the same plant in the first source.
OF_MEMORY = "memory:"
# How far a borrowed value may be off. The two sources' rows of one plant differ by a third and more
# in amino acids (almonds, chia, sesame), and phytate and oxalate by variety and soil; the same
# plant in the same source by a tenth. Common practice, no source. [share of it]
LENT_BY_ANOTHER, LENT_BY_ITSELF, LENT_VARIABLE = (0.65, 1.6), (0.9, 1.1), (0.5, 2.0)


# A derived value has a range where so much of it is brought by rows that have one. [share]
MOSTLY_RANGED = 0.9


def borrowed_spread(donor: str, key: str) -> tuple[float, float]:
    """The least and the most of a borrowed value, as shares of it."""
    if key in PER_DRY_MATTER:
        return LENT_VARIABLE
    return LENT_BY_ITSELF if donor.startswith(OF_MEMORY) else LENT_BY_ANOTHER


def _round(value: float) -> str:
    return f"{value:.4g}"


class Builder:
    def __init__(self, first: Path, second: Path) -> None:
        self.first = sources.FirstSource(first)
        self.second = sources.second_source(second)
        self.kinds = sources.label_kinds(HERE / "label_kinds.toml")
        wanted = sources.of_any_kind(self.kinds)
        self.first.labels = [
            record for record in self.first.labels if wanted(record["foodName"].lower())
        ]
        with (HERE / "selection.csv").open(newline="", encoding="utf-8") as file:
            self.selection = {row["slug"]: row for row in csv.DictReader(file)}
        with (HERE / "donors.csv").open(newline="", encoding="utf-8") as file:
            self.donors = [
                (re.compile(row["pattern"]), row["donor"]) for row in csv.DictReader(file)
            ]
        self.fill = fills.Fills(HERE)
        self.making: set[str] = set()
        self.memory = sources.from_memory(HERE / "memory.csv")
        self.remembered = sources.remembered_donors(HERE / "memory_donors.csv")
        self.done: dict[str, Row] = {}
        self.notes: dict[str, list[str]] = {}
        self.spread: dict[str, tuple[Row, Row, int]] = {}

    def row(self, slug: str) -> Row:
        if slug not in self.done:
            self.making.add(slug)
            self._make(slug)
            self.making.discard(slug)
        return self.done[slug]

    def _base(self, food: dict[str, str], notes: list[str]) -> Row:
        source, description = food["source"], food["source_description"]
        if source in ("sr", "fnd", "fndds"):
            return sources.nutrients_of(self.first.find(source, description))
        if source == "ifct":
            return dict(self.second[description])
        if source == "label":
            kind = self.kinds[description]
            records = sources.label_records(self.first.labels, kind)
            if len(records) < 3:
                raise ValueError(f"{description}: only {len(records)} label records")
            fortified = "fortified" in food["tags"].split("|")
            middle, low, high = sources.label_median(records, fortified, list(kind.get("none", [])))  # type: ignore[call-overload]
            notes.append(f"median of {len(records)} label records")
            self.spread[food["slug"]] = (low, high, len(records))
            return middle
        if source == "parts":
            parts = derive.parts_of(description)
            made = derive.of_parts([(part, self.row(part), grams) for part, grams in parts])
            self._carry(food["slug"], made, parts)
            return made
        if source == "memory":
            known = self.memory[food["slug"]]
            notes.append(f"values of {known.of}")
            self._spread_from(food["slug"], known)
            return dict(known.values)
        if source == "reference":
            return {key: value * DOSE_PER_100_G for key, value in DOSES[food["slug"]].items()}
        return {}

    def _make(self, slug: str) -> None:
        # Whole: the steps of one row, in their order.
        food = self.selection[slug]
        notes: list[str] = []
        row = self._base(food, notes)
        for step in food["derive"].split():
            name, _, argument = step.partition(":")
            note = ""
            if name == "minus-salt-236":
                note = derive.without_added_salt(row)
            elif name == "minus-added-fat":
                note = derive.without_added_fat(row, self.row(argument), argument)
            elif name == "sodium-unknown":
                row.pop("sodium_mg", None)
                note = "sodium unknown: the source salts its cooked dishes"
            elif name == "sodium-from":
                note = derive.sodium_from(row, self.row(argument), argument)
            elif name == "fill-from":
                note = derive.fill_from(row, self.row(argument), argument)
            elif name == "cooked-from":
                donor, _, factor = argument.partition(":")
                row, note = derive.cooked_from(self.row(donor), donor, food["group"], factor)
                self._carry(slug, row, [(donor, 1.0)])
            elif name == "canned-from":
                donor, _, salt = argument.partition(":")
                row, note = derive.canned_from(self.row(donor), donor, salt)
                self._carry(slug, row, [(donor, 1.0)])
            elif name == "drop":
                for key in argument.split(","):
                    row.pop(key, None)
                note = f"not taken over: {', '.join(argument.split(','))}"
            elif name == "else-memory":
                note = self._else_memory(slug, row)
            elif name == "dried":
                row, note = derive.dried(row, float(argument))
            elif name == "label-spread":
                note = self._label_spread(slug, row, argument.replace("_", " "))
            elif name == "wide":
                note = self._wide(slug, row, float(argument))
            elif name == "span":
                note = self._span(slug, row, argument)
            elif name == "with":
                note = self._with_memory(slug, row)
            elif name == "rinsed-from":
                row, note = derive.rinsed_from(self.row(argument), argument)
                self._carry(slug, row, [(argument, 1.0)])
            elif name == "hydrate":
                note = derive.hydrate(row, float(argument))
            elif name == "pure-mineral":
                note = derive.pure_mineral(row)
            else:
                raise ValueError(f"{slug}: no step called {name}")
            if note:
                notes.append(note)
        if "energy_kcal" not in row:
            energy = atwater_kcal(row)
            if energy is not None:
                row["energy_kcal"] = energy
                notes.append("energy by the general factors 4-4-9-2")
        if "water_g" not in row and food["source"] not in ("label", "reference"):
            water = derive.water_by_difference(row)
            # alcohol is not carbohydrate, protein or fat: no water by difference for drinks that
            # hold it
            if water is not None and not re.search("wine|beer", slug):
                row["water_g"] = water
                if food["source"] not in ("ifct", "computed"):
                    notes.append("water by difference")
        self._added_sugars(food, row)
        if food["source"] not in ("reference",) and food["group"] != "comparator":
            note = self._borrow(slug, row)
            if note:
                notes.append(note)
            notes += self.fill.of(slug, food, row, self._twins(slug))
            self._spread_between(slug, self.fill.low, self.fill.high)
        self.done[slug] = row
        self.notes[slug] = notes

    def _with_memory(self, slug: str, row: Row) -> str:
        """What the source leaves out or has wrong, from memory of a published table."""
        known = self.memory[slug]
        row.update(known.values)
        self._spread_from(slug, known)
        return f"{', '.join(key.rsplit('_', 1)[0] for key in known.values)} of {known.of}"

    def _else_memory(self, slug: str, row: Row) -> str:
        """What the source does not have, from memory of a published table; what it has stands. Its
        water is what is left of the source's own row."""
        known = self.memory[slug]
        missing = [key for key in known.values if key not in row and key != "water_g"]
        row.update({key: known.values[key] for key in missing})
        if not missing:
            return ""
        return f"{', '.join(key.rsplit('_', 1)[0] for key in missing)} of {known.of}"

    def _label_spread(self, slug: str, row: Row, description: str) -> str:
        """A measured row stands; how far makers differ is said by the label records of the kind."""
        records = sources.label_records(self.first.labels, self.kinds[description])
        middle, low, high = sources.label_median(records, False, [])
        least = {key: min(row[key], low[key]) for key in middle if key in row}
        most = {key: max(row[key], high[key]) for key in middle if key in row}
        self._spread_over(slug, least, most)
        return f"spread of {len(records)} label records"

    def _wide(self, slug: str, row: Row, share: float) -> str:
        """A dish that every kitchen makes otherwise: each value off by such a share."""
        low = {key: value * (1 - share) for key, value in row.items()}
        high = {key: value * (1 + share) for key, value in row.items()}
        self._spread_over(slug, low, high)
        return f"a dish that kitchens make differently: within {share:.0%}, common practice"

    def _span(self, slug: str, row: Row, argument: str) -> str:
        """A nutrient of which makers add more or less: "sodium_mg=0-115"."""
        low, high = {}, {}
        for pair in argument.split(","):
            key, ends = pair.split("=")
            low[key], high[key] = (float(end) for end in ends.split("-"))
            row.setdefault(key, (low[key] + high[key]) / 2)
        self._spread_over(slug, low, high)
        return f"{', '.join(key.rsplit('_', 1)[0] for key in low)}: makers differ"

    def _carry(self, slug: str, row: Row, parts: list[tuple[str, float]]) -> None:
        """What a derived row takes over it takes with its range: that of its parts, in quadrature,
        by what each brings; of a nutrient whose parts have no range of their own, none."""
        low, high = {}, {}
        for key, value in row.items():
            down = up = ranged = whole = 0.0
            for part, grams in parts:
                amount = self.row(part).get(key, 0.0) * grams
                least, most, _count = self.spread.get(part, ({}, {}, 0))
                whole += amount
                if key in least and amount > 0:
                    ranged += amount
                    share = self.row(part)[key]
                    down += (amount * (1 - min(least[key] / share, 1.0))) ** 2
                    up += (amount * (max(most[key] / share, 1.0) - 1)) ** 2
            if whole > 0 and ranged >= MOSTLY_RANGED * whole:
                low[key] = value * max(1 - down**0.5 / whole, 0.0)
                high[key] = value * (1 + up**0.5 / whole)
        self._spread_between(slug, low, high)

    def _spread_from(self, slug: str, known: sources.Remembered) -> None:
        self._spread_between(slug, known.low, known.high)

    def _added_sugars(self, food: dict[str, str], row: Row) -> None:
        if "added sugar" not in food["tags"].split("|"):
            if food["group"] in UNPROCESSED:
                row["added_sugars_g"] = 0.0
        elif food["group"] == "sweetener" and "sugars_g" in row:
            row["added_sugars_g"] = row["sugars_g"]

    def _twins(self, slug: str) -> Iterator[tuple[str, Row]]:
        """The same food in other states, none that is itself made from this one."""
        for twin in fills.other_states(slug):
            if twin in self.selection and twin not in self.making:
                yield twin, self.row(twin)

    def _spread_over(self, slug: str, low: Row, high: Row) -> None:
        """As `_spread_between`, in the place of what was said before."""
        least, most, count = self.spread.get(slug, ({}, {}, 0))
        self.spread[slug] = (least | low, most | high, count)

    def _spread_between(self, slug: str, low: Row, high: Row) -> None:
        least, most, count = self.spread.get(slug, ({}, {}, 0))
        self.spread[slug] = (low | least, high | most, count)

    def _borrow(self, slug: str, row: Row) -> str:
        name = next((donor for pattern, donor in self.donors if pattern.search(slug)), None)
        if name is None:
            return ""
        took: list[str] = []
        least: Row = {}
        most: Row = {}
        for key, amount, words in self._lent(slug, row, name):
            row[key] = amount
            low, high = borrowed_spread(name, key)
            least[key], most[key] = amount * low, amount * high
            if words not in took:
                took.append(words)
        self._spread_between(slug, least, most)
        return f"{'; '.join(took)} from {self._donor_words(name)}" if took else ""

    def _donor_words(self, name: str) -> str:
        if name.startswith(OF_MEMORY):
            return f"{self.remembered[name.removeprefix(OF_MEMORY)].of}, from memory of SR Legacy"
        return f"{name} (Indian Food Composition Tables 2017)"

    def _lent(self, slug: str, row: Row, name: str) -> list[tuple[str, float, str]]:
        """What a donor lends to what a row has not: nutrient, amount, and by what."""
        remembered = name.startswith(OF_MEMORY)
        donor = (
            self.remembered[name.removeprefix(OF_MEMORY)].values
            if remembered
            else self.second[name]
        )
        out = []
        for keys, per, words in (
            (AMINO_ACIDS, "protein_g", "amino acids per g protein"),
            (FATTY, "fat_g", "fatty acids per g fat"),
        ):
            if row.get(per) and donor.get(per):
                ratio = row[per] / donor[per]
                out += [(key, donor[key] * ratio, words) for key in keys if key in donor]
        # phytate and oxalate are of the second source alone
        if remembered:
            name = next(
                (
                    other
                    for pattern, other in self.donors
                    if pattern.search(slug) and not other.startswith(OF_MEMORY)
                ),
                "",
            )
            donor = self.second.get(name, {})
        if "water_g" in row and "water_g" in donor:
            ratio = (100 - row["water_g"]) / (100 - donor["water_g"])
            words = "phytate, oxalate per g dry matter"
            if remembered:
                words += f" of {name} (Indian Food Composition Tables 2017)"
            out += [(key, donor[key] * ratio, words) for key in PER_DRY_MATTER if key in donor]
        return [(key, amount, words) for key, amount, words in out if key not in row]

    def write(self, path: Path) -> None:
        fields = [
            "slug",
            "name",
            "group",
            "role",
            "state",
            "allergens",
            "tags",
            "source",
            "source_description",
            "notes",
            "spread",
        ]
        with path.open("w", newline="", encoding="utf-8") as file:
            writer = csv.writer(file, lineterminator="\n")
            writer.writerow([*fields, *KEYS])
            for slug in sorted(self.selection):
                food, row = self.selection[slug], self.row(slug)
                description = food["source_description"] or food["derive"] or food["name"]
                spread = ""
                if slug in self.spread:
                    low, high, _count = self.spread[slug]
                    spread = "|".join(
                        f"{key}:{_round(low[key])}:{_round(high[key])}"
                        for key in KEYS
                        if key in low
                    )
                writer.writerow(
                    [
                        slug,
                        food["name"],
                        food["group"],
                        food["role"],
                        food["state"],
                        food["allergens"],
                        food["tags"],
                        SOURCE_NAMES[food["source"]],
                        description,
                        "; ".join(self.notes[slug]),
                        spread,
                    ]
                    + [_round(row[key]) if key in row else "" for key in KEYS]
                )


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("first", type=Path, help="fooddata.csv of the first data set")
    parser.add_argument("second", type=Path, help="index.csv of the second data set")
    args = parser.parse_args()
    builder = Builder(args.first, args.second)
    builder.write(OUT / "foods.csv")
    print(f"{len(builder.done)} foods written")


if __name__ == "__main__":
    main()
