"""Many weigh-ins at once: pasted, or the file that a scale gives. Each is looked at; a doubtful one
is asked about, and none is dropped in silence."""

from __future__ import annotations

import csv
import re
from dataclasses import dataclass, field
from datetime import date

from django.db import transaction

from clients.models import Client
from journal.dates import day_first_in, read_date
from nutrition.follow_up.doubts import Doubt, doubt
from nutrition.follow_up.weigh_in import KG_PER_LB, LATER, MORNING, Weighed, read_weight
from nutrition.targets.person import LIMITS
from practice.models import User

MOST_LINES = 1000
# A remark holds so much. [characters]
MOST_REMARK = 200
A_FEW = 6
_HOUR = re.compile(r"(?<!\d)([01]?\d|2[0-3])[:.h]([0-5]\d)(?::[0-5]\d)?\s*([ap]m)?\b", re.I)
MORNING_UNTIL = 11


class TwoDates(ValueError):
    """A date that can be two."""


@dataclass(frozen=True, kw_only=True)
class Read:
    """A line that was read: its weigh-in, what stands there already for its day, and what is asked
    about it."""

    line: int
    text: str
    weighed: Weighed
    remark: str
    there: float | None
    doubt: Doubt | None

    @property
    def same(self) -> bool:
        """Whether it is there already."""
        return self.there is not None and abs(self.there - self.weighed.kg) < 0.05

    @property
    def asks(self) -> bool:
        return not self.same and (self.there is not None or self.doubt is not None)

    @property
    def key(self) -> str:
        return f"{self.weighed.on.isoformat()}:{self.weighed.kg:g}"


@dataclass
class Pasted:
    """What was read of a text, and the lines that were not, each with why."""

    rows: list[Read] = field(default_factory=list)
    problems: list[tuple[int, str, str]] = field(default_factory=list)
    ambiguous: bool = False
    # the columns of a table that hold no weigh-in, and are not kept
    unread: tuple[str, ...] = ()

    @property
    def asked(self) -> list[Read]:
        return [row for row in self.rows if row.asks]

    @property
    def first_few(self) -> str:
        """The first of what is new, in words."""
        said = [
            f"{row.weighed.on:%b} {row.weighed.on.day} {row.weighed.kg:.1f} kg"
            for row in self.fresh[:A_FEW]
        ]
        return ", ".join(said) + (" and more" if len(self.fresh) > A_FEW else "")

    @property
    def fresh(self) -> list[Read]:
        return [row for row in self.rows if not row.same and not row.asks]

    @property
    def same(self) -> int:
        return sum(row.same for row in self.rows)


def read_weights(
    text: str, client: Client, today: date, pounds: bool = False, day_first: bool | None = None
) -> Pasted:
    """The weigh-ins in a text, one a line: a date, a weight, perhaps an hour and a remark, in any
    order of columns that a heading names, or date first. [kg] or, with `pounds`, [lb]"""
    out = Pasted()
    lines = [(at, line.strip()) for at, line in enumerate(text.lstrip("\ufeff").splitlines(), 1)]
    lines = [(at, line) for at, line in lines if line]
    heads = _heads(lines[0][1]) if lines else None
    for at, line in lines[MOST_LINES + (heads is not None) :]:
        out.problems.append((at, line[:60], f"More than {MOST_LINES:,} lines: give these apart."))
    lines = lines[: MOST_LINES + (heads is not None)]
    if heads is not None:
        lines, pounds = lines[1:], pounds or heads.pounds
        out.unread = heads.unread
    if day_first is None:
        day_first = day_first_in([_date_text(line) for _at, line in lines])
    found: dict[date, tuple[int, str, Weighed, str]] = {}
    for at, line in lines:
        try:
            one, remark = _weigh_in(line, heads, pounds, day_first, today, client)
        except ValueError as error:
            out.problems.append((at, line[:60], str(error)))
            out.ambiguous = out.ambiguous or isinstance(error, TwoDates)
            continue
        before = found.get(one.on)
        if before is not None:
            kept, given_up = before, (at, line)
            words = f"A second weight of {one.on:%b} {one.on.day}: {before[2].kg:g} kg is taken."
            # the one on rising is the one that is compared
            if before[2].time != MORNING and one.time == MORNING:
                kept, given_up = (at, line, one, remark), (before[0], before[1])
                words = f"{before[2].kg:g} kg gives way to {one.kg:g} kg on rising, line {at}."
            found[one.on] = kept
            out.problems.append((given_up[0], given_up[1][:60], words))
            continue
        found[one.on] = (at, line, one, remark)
    out.problems.sort(key=lambda row: row[0])
    there = {row.date: row for row in client.weigh_ins.all()}
    known = [row.weighed() for row in there.values()]
    new = [one for _at, _line, one, _remark in found.values()]
    for at, line, one, remark in sorted(found.values(), key=lambda row: row[2].on):
        others = [*known, *(other for other in new if other.on not in there)]
        stored = there.get(one.on)
        out.rows.append(
            Read(
                line=at,
                text=line,
                weighed=one,
                remark=remark,
                there=stored.kg if stored else None,
                doubt=doubt(others, one),
            )
        )
    return out


@dataclass(frozen=True, kw_only=True)
class _Heads:
    """Where a table has what, by its first line."""

    mark: str
    names: tuple[str, ...]
    unread: tuple[str, ...]
    date: int
    weight: int
    time: int
    rest: tuple[int, ...]
    pounds: bool


def _heads(line: str) -> _Heads | None:
    """What a first line names; None for one that is a weigh-in itself."""
    mark = max(",;\t", key=line.count)
    names = [cell.strip().strip('"').lower() for cell in line.split(mark)]
    dates = [at for at, name in enumerate(names) if name.startswith(("date", "day", "time of"))]
    weights = [
        at
        for at, name in enumerate(names)
        if re.search(r"weight|\bkg\b|\blbs?\b|mass", name) and "fat" not in name
    ]
    if not dates or not weights:
        return None
    hours = [at for at, name in enumerate(names) if name in ("time", "hour")]
    rest = [at for at, name in enumerate(names) if re.search(r"remark|note|comment", name)]
    known = {dates[0], weights[0], *hours, *rest}
    pounds = bool(re.search(r"\blbs?\b|pound", names[weights[0]]))
    return _Heads(
        mark=mark,
        names=tuple(names),
        unread=tuple(name for at, name in enumerate(names) if at not in known and name),
        date=dates[0],
        weight=weights[0],
        time=hours[0] if hours else -1,
        rest=tuple(rest),
        pounds=pounds,
    )


_DATE = re.compile(
    r"^\W*(\d{4}[-/]\d{1,2}[-/]\d{1,2}|\d{1,2}[./-]\d{1,2}[./-]\d{4}"
    r"|[A-Za-z]{3,9}\.? \d{1,2},? \d{4}"
    r"|\d{1,2}\.? [A-Za-z]{3,9} \d{4})"
)
_KG = re.compile(
    r"(?<![\d.,:])(\d{2,3},\d{1,2}|\d{1,3}(?:\.\d{1,3})?)"
    r"\s*((?:kg|kgs|kilos?|lbs?|pounds?|st|stones?)(?:\s*\d{1,2}(?:\.\d)?(?:\s*lbs?)?)?)?(?![\d:%])",
    re.I,
)


def _date_text(line: str) -> str:
    found = _DATE.match(line)
    return found[1] if found else ""


@dataclass(frozen=True)
class _Cells:
    date: str
    weight: str
    time: str
    rest: str


_DIGITS = re.compile(r"\d{1,3}")


def _whole_cells(line: str, heads: _Heads) -> list[str]:
    """The cells of a line, a weight that its decimal comma parted put together again. Raises
    ValueError where there are more than the heading names."""
    cells = [cell.strip() for cell in next(csv.reader([line], delimiter=heads.mark, strict=True))]
    count, at = len(heads.names), heads.weight
    parted = (
        heads.mark == ","
        and len(cells) == count + 1
        and len(cells) > at + 1
        and _DIGITS.fullmatch(cells[at])
        and re.fullmatch(r"\d{1,2}(?: ?(?:kg|lbs?))?", cells[at + 1])
    )
    if parted:
        cells[at : at + 2] = [f"{cells[at]}.{cells[at + 1]}"]
    while len(cells) > count and not cells[-1]:
        cells.pop()
    if len(cells) > count:
        raise ValueError(
            f"It has {len(cells)} columns where the heading names {count}: write a decimal comma "
            f"as a point, or in quotes."
        )
    return cells


def _by_heads(line: str, heads: _Heads) -> _Cells:
    try:
        cells = _whole_cells(line, heads)
    except csv.Error as error:
        raise ValueError(f"It cannot be read as a line of a table: {error}.") from None

    def cell(at: int) -> str:
        return cells[at] if 0 <= at < len(cells) else ""

    rest = ", ".join(cell(at) for at in heads.rest if cell(at))
    # a scale may give date and hour in one
    time = cell(heads.time) or (cell(heads.date)[10:] if heads.time < 0 else "")
    return _Cells(cell(heads.date), cell(heads.weight), time, rest)


def _by_eye(line: str) -> _Cells:
    """A line as somebody types it: the date first, then the rest in any order."""
    found = _DATE.match(line)
    if found is None:
        return _Cells("", "", "", "")
    after = line[found.end() :]
    hour = _HOUR.search(after)
    if hour is not None:
        after = after[: hour.start()] + " " + after[hour.end() :]
    # a comma with a digit on both sides is a decimal comma; any other parts the cells
    after = re.sub(r"(?<!\d),|,(?!\d)", " ; ", after.strip(' "T'))
    weight = _KG.search(after)
    if weight is None:
        return _Cells(found[1], "", hour[0] if hour else "", after.strip(" ,;\t"))
    rest = f"{after[: weight.start()]} {after[weight.end() :]}"
    rest = " ".join(re.sub(r"[;\t]", " ", rest).split()).strip(' ,:"')
    return _Cells(found[1], weight[0], hour[0] if hour else "", rest)


def _weigh_in(
    line: str,
    heads: _Heads | None,
    pounds: bool,
    day_first: bool | None,
    today: date,
    client: Client,
) -> tuple[Weighed, str]:
    """A line's weigh-in and remark. Raises ValueError with why."""
    cells = _by_heads(line, heads) if heads else _by_eye(line)
    if not cells.date:
        raise ValueError("No date is found in it: write 2026-11-03, 101.4.")
    on = read_date(cells.date, day_first)
    if on is None:
        if re.match(r"^\d{1,2}[/-]\d{1,2}[/-]\d{4}", cells.date):
            raise TwoDates(f"“{cells.date[:10]}” can be two dates: choose which comes first.")
        raise ValueError(f"“{cells.date[:20]}” is no date: write 2026-11-03.")
    kg = read_weight(cells.weight)
    if kg is None:
        raise ValueError("No weight is found in it.")
    if pounds and re.fullmatch(r"[\d.,]+", cells.weight.strip()):
        kg = round(kg * KG_PER_LB, 2)
    if on > today:
        raise ValueError(f"{on} has not come yet.")
    if on.year < client.birth_year:
        raise ValueError(f"{on} is before this client was born.")
    low, high = LIMITS["weight_kg"]
    if not low <= kg <= high:
        raise ValueError(f"{kg:g} kg is outside {low:g} to {high:g} kg.")
    said = cells.rest.lower()
    time = _time_of(cells.time)
    time = time or (MORNING if "morning" in said or "rising" in said else "")
    time = time or (LATER if "evening" in said or "night" in said else "")
    dressed = ("dressed" in said and "undressed" not in said) or "clothes" in said
    if len(cells.rest) > MOST_REMARK:
        raise ValueError(
            f"What stands beside the weight has {len(cells.rest)} characters, and {MOST_REMARK} "
            f"can be kept: shorten it."
        )
    return Weighed(on, kg, time=time, dressed=dressed), cells.rest


def _time_of(text: str) -> str:
    found = _HOUR.search(text)
    if found is None:
        return ""
    hour = int(found[1]) + (12 if (found[3] or "").lower() == "pm" and int(found[1]) < 12 else 0)
    return MORNING if 3 <= hour < MORNING_UNTIL else LATER


def keep_weights(client: Client, rows: list[Read], agreed: set[str], by: User) -> int:
    """Keep what is new, and what was asked about and agreed to; how many."""
    kept = 0
    with transaction.atomic():
        for row in rows:
            if row.same or (row.asks and row.key not in agreed):
                continue
            one = row.weighed
            client.weigh(
                one.on,
                one.kg,
                by,
                time=one.time,
                dressed=one.dressed,
                remark=row.remark,
                asked_about=row.doubt is not None,
            )
            kept += 1
    return kept
