"""The most of a vitamin or mineral that an adult should have in a day, from
data/upper_levels.toml."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from functools import lru_cache

from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.tables import BadTable, toml_rows
from nutrition.targets.conditions import conditions
from nutrition.targets.reference_intakes import age_group

_KEYS = (
    *("of_all", "most", "most_14", "most_51", "most_71", "most_pregnant", "stop_from"),
    *("not_with", "why", "refer_to", "source"),
)


@dataclass(frozen=True, kw_only=True)
class UpperLevel:
    """One row; the head of data/upper_levels.toml says what each field is. In the key's unit per
    day."""

    key: str
    most: float
    by_group: dict[str, float]
    of_all: bool
    stop_from: float | None
    not_with: frozenset[str]
    why: str
    refer_to: str
    source: str

    def most_for(self, age_years: float, life_stage: str) -> float:
        """The level for an age [years] and a stage of life. [the key's unit per day]"""
        if life_stage.startswith("pregnant") and "pregnant" in self.by_group:
            return self.by_group["pregnant"]
        first = age_group(age_years)
        if first >= 51:
            older = self.by_group.get("51", self.most)
            return self.by_group.get("71", older) if first >= 71 else older
        return self.by_group.get(str(first), self.most)

    def holds_for(self, conditions_in_play: Collection[str]) -> bool:
        return self.not_with.isdisjoint(conditions_in_play)


@lru_cache(maxsize=1)
def upper_levels() -> dict[str, UpperLevel]:
    """All rows by nutrient. Raises BadTable for one that names what is not there."""
    out = {}
    for key, row in toml_rows(
        "upper_levels.toml", _KEYS, ("most", "why", "refer_to", "source")
    ).items():
        if key not in NUTRIENT:
            raise BadTable(f"upper_levels.toml: there is no nutrient “{key}”", key)
        for code in row.get("not_with", ()):
            if code not in conditions():
                raise BadTable(f"upper_levels.toml, {key}: no condition “{code}”", "not_with")
        groups = ("14", "51", "71", "pregnant")
        out[key] = UpperLevel(
            key=key,
            most=float(row["most"]),
            by_group={name: row[f"most_{name}"] for name in groups if f"most_{name}" in row},
            of_all=bool(row.get("of_all")),
            stop_from=row.get("stop_from"),
            not_with=frozenset(row.get("not_with", ())),
            why=row["why"],
            refer_to=row["refer_to"],
            source=row["source"],
        )
    return out
