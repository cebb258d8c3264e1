"""A client's record read at once: how the weight stands, why, and what would change it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date, timedelta
from functools import cached_property

from changes.aims import plan_aims
from clients.models import Client
from clients.plan.gate import gate_of
from clients.plan.in_force import Plan
from journal.record.days import record_of
from nutrition.composition.portion import Portion
from nutrition.follow_up.attention import pace_of
from nutrition.follow_up.causes import Cause, causes, need_by_record
from nutrition.follow_up.intake import Average, Parted, average, parted, whole_days
from nutrition.follow_up.levers import Lever, Usual, levers, usual_fillers
from nutrition.follow_up.reported_energy import Reported, reported
from nutrition.follow_up.stall import Judged, Record, judge_pace
from week.dishes import things_of
from week.models import Favorite

# So many favorites are tried in a dish's place.
MOST_OTHERS = 8


@dataclass(frozen=True)
class Reading:
    """What follows from a record. What takes longer is reckoned when it is asked for."""

    client: Client
    plan: Plan
    record: Record
    judged: Judged

    @cached_property
    def causes(self) -> list[Cause]:
        return causes(self.record, self.judged)

    @cached_property
    def levers(self) -> list[Lever]:
        """Changes that would close the gap on the days as they usually are."""
        if not self.judged.stalled or self.judged.expected > 0:
            return []
        day = self.plan.day
        if day is None or self.client.counting_harms:
            return []
        gap = self.judged.gap_kcal[0]
        known = average(self.lately(28), "energy_kcal")
        # what was written down is never led under what is planned at the least
        room = known.mean - day.energy.least if known else gap
        grown = [one for cause in self.causes for one in cause.foods]
        usual = Usual(
            days=self.lately(28),
            aims=plan_aims(self.plan, None),
            gate=gate_of(self.plan),
            fillers=usual_fillers(),
            others=self._others(),
            system=self.client.practice.measures,
        )
        found = levers(usual, min(gap, room), grown)
        return [replace(one, closes=one.kcal / gap) for one in found]

    def _others(self) -> dict[str, list[Portion]]:
        """Favorites that may take a dish's place, by the name of a dish that is one of a kind with
        them."""
        rows = list(Favorite.objects.filter(client=self.client, verdict="kept"))
        looked_at = rows[: 3 * MOST_OTHERS]
        by_key = things_of((row.key for row in looked_at), self.client)
        things = {row.pk: by_key.get(row.key) for row in looked_at}
        out: dict[str, list[Portion]] = {}
        for row in rows:
            mine = things.get(row.pk)
            if mine is None or mine.food is not None:
                continue
            same = [
                other.portion
                for one in rows
                if one.kind == row.kind
                and one.pk != row.pk
                and (other := things.get(one.pk)) is not None
                and not other.unsettled
            ]
            out.setdefault(mine.name, []).extend(same[:MOST_OTHERS])
        return out

    def lately(self, days: int) -> list:
        """The logged days of the last so many."""
        since = self.record.today - timedelta(days=days)
        return [day for day in self.record.logged if day.on > since]

    def whole_in(self, days: int) -> int:
        """On how many of the last days everything was logged."""
        return len(whole_days(self.lately(days)))

    def average_kcal(self, days: int) -> Average | None:
        return average(self.lately(days), "energy_kcal")

    def averages(self, days: int) -> list[tuple[object, Average]]:
        """Each watched target with what was eaten of it on average."""
        lately = self.lately(days)
        rows = [(row, average(lately, row.target.key)) for row in self.plan.watched]
        return [(row, one) for row, one in rows if one is not None]

    def parted(self, days: int) -> Parted | None:
        return parted(self.lately(days))

    def reported(self, days: int) -> Reported | None:
        """What was written down against what the body shows."""
        known = self.average_kcal(days)
        if known is None:
            return None
        return reported(self.record.person, known.mean, known.days, pace_of(self.judged))

    @cached_property
    def need(self) -> tuple[float, float, float] | None:
        """What holds the weight by the record. [kcal/day]"""
        return need_by_record(self.record, self.judged)


def read(client: Client, today: date, plan: Plan) -> Reading:
    """A client's record, read."""
    record = record_of(client, today, plan)
    return Reading(client, plan, record, judge_pace(record))
