"""The line of weight: single weigh-ins, the trend with its band, corridors, the goal, where it is
heading, and what happened when."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import date

from webkit.drawing.ticks import calendar_days, round_numbers

TOP, RIGHT, BOTTOM, LEFT = 10.0, 8.0, 24.0, 40.0
# The scale shows at least so much, so that what mornings differ by looks like little. [kg]
LEAST_SPAN_KG = 2.0
# A goal or corridor further off than this is not drawn: it would flatten the line. [kg]
FAR_KG = 4.0
# The scale is told in at most so many steps.
MOST_STEPS = 6


@dataclass(frozen=True)
class Dot:
    """A weigh-in: where it is drawn, what it says, and whether the trend hardly follows it."""

    x: float
    y: float
    said: str
    odd: bool = False


@dataclass(frozen=True)
class Mark:
    """Something that happened: its place on the line, a number, and where it ends if it lasted."""

    x: float
    until: float
    number: int
    said: str


@dataclass(frozen=True)
class Layer:
    """A band with its label: its area, the line in its middle where there is one, and its edges as
    far as the scale shows them."""

    says: str
    area: str
    line: str
    edges: str


@dataclass(frozen=True, kw_only=True)
class WeightChart:
    """Positions of the drawing. [px]"""

    width: float
    height: float
    left: float
    base: float
    right: float
    dots: list[Dot]
    trend: Layer | None
    asked: Layer | None
    usual: Layer | None
    ahead: Layer | None
    ticks: list[tuple[float, str]]
    dates: list[tuple[float, str]]
    marks: list[Mark]
    goal_y: float | None
    today_x: float | None


@dataclass(frozen=True, kw_only=True)
class Band:
    """Least and most of a weight on some days, with the middle where there is one. [kg]"""

    says: str
    days: Sequence[date]
    low: Sequence[float]
    high: Sequence[float]
    middle: Sequence[float] = ()


@dataclass(frozen=True, kw_only=True)
class Drawn:
    """What is to be drawn. Weigh-ins are (day, kg, what they say, odd); what happened is (from,
    until, words)."""

    weighed: Sequence[tuple[date, float, str, bool]]
    trend: Band | None = None
    asked: Band | None = None
    usual: Band | None = None
    ahead: Band | None = None
    goal_kg: float | None = None
    happened: Sequence[tuple[date, date, str]] = field(default_factory=tuple)
    today: date | None = None


class _Axes:
    """Days and kilograms to pixels."""

    def __init__(self, drawn: Drawn, width: float, height: float) -> None:
        days = [on for on, _kg, _said, _odd in drawn.weighed]
        self.first, last = min(days), max(days)
        if drawn.ahead is not None and drawn.ahead.days:
            last = max(last, drawn.ahead.days[-1])
        if drawn.today is not None:
            last = max(last, drawn.today)
        self.last, self.width, self.height = last, width, height
        weights = [kg for _on, kg, _said, _odd in drawn.weighed]
        for band in (drawn.trend, drawn.ahead):
            if band is not None:
                weights += [*band.low, *band.high]
        low, high = min(weights), max(weights)
        near = [drawn.goal_kg] if drawn.goal_kg is not None else []
        if drawn.asked is not None:
            near += [drawn.asked.low[-1], drawn.asked.high[-1]]
        for kg in near:
            if low - FAR_KG <= kg <= high + FAR_KG:
                low, high = min(low, kg), max(high, kg)
        spare = max(LEAST_SPAN_KG - (high - low), 0.0) / 2 + 0.2
        self.low, self.high = low - spare, high + spare

    def x(self, on: date) -> float:
        days = max((self.last - self.first).days, 1)
        at = min(max((on - self.first).days, 0), days)
        return round(LEFT + 5 + (self.width - LEFT - RIGHT - 10) * at / days, 1)

    def y(self, kg: float) -> float:
        kg = min(max(kg, self.low), self.high)
        span = self.high - self.low
        return round(TOP + (self.height - TOP - BOTTOM) * (self.high - kg) / span, 1)

    def holds(self, kg: float) -> bool:
        return self.low <= kg <= self.high

    def layer(self, band: Band | None) -> Layer | None:
        if band is None or len(band.days) < 2:
            return None
        # no more points than can be told apart
        step = max(len(band.days) // 120, 1)
        at = [*range(0, len(band.days) - 1, step), len(band.days) - 1]
        at = [i for i in at if self.first <= band.days[i] <= self.last]
        if len(at) < 2:
            return None
        upper = [(self.x(band.days[i]), self.y(band.high[i])) for i in at]
        lower = [(self.x(band.days[i]), self.y(band.low[i])) for i in reversed(at)]
        line = ""
        if band.middle:
            line = _path((self.x(band.days[i]), self.y(band.middle[i])) for i in at)
        edges = "".join(
            _path(shown)
            for side in (band.low, band.high)
            if len(
                shown := [
                    (self.x(band.days[i]), self.y(side[i])) for i in at if self.holds(side[i])
                ]
            )
            > 1
        )
        return Layer(band.says, f"{_path([*upper, *lower])}Z", line, edges)

    def kilograms(self) -> list[tuple[float, str]]:
        ticks, step = round_numbers(self.low, self.high, MOST_STEPS)
        return [(self.y(kg), f"{kg:.{0 if step >= 1 else 1}f}") for kg in ticks]

    def dates(self, most: int) -> list[tuple[float, str]]:
        return [(self.x(on), said) for on, said in calendar_days(self.first, self.last, most)]


def _path(points: object) -> str:
    return "M" + "L".join(f"{px} {py}" for px, py in points)  # type: ignore[attr-defined]


def weight_chart(drawn: Drawn, width: float, height: float) -> WeightChart | None:
    """The drawing; None for fewer than two weigh-ins. [px]"""
    if len(drawn.weighed) < 2:
        return None
    axes = _Axes(drawn, width, height)
    goal = drawn.goal_kg
    return WeightChart(
        width=width,
        height=height,
        left=LEFT,
        base=height - BOTTOM,
        right=width - RIGHT,
        dots=[Dot(axes.x(on), axes.y(kg), said, odd) for on, kg, said, odd in drawn.weighed],
        trend=axes.layer(drawn.trend),
        asked=axes.layer(drawn.asked),
        usual=axes.layer(drawn.usual),
        ahead=axes.layer(drawn.ahead),
        ticks=axes.kilograms(),
        dates=axes.dates(9 if width > 500 else 5),
        marks=[
            Mark(axes.x(start), axes.x(end), number, said)
            for number, (start, end, said) in enumerate(drawn.happened, 1)
        ],
        goal_y=axes.y(goal) if goal is not None and axes.holds(goal) else None,
        today_x=axes.x(drawn.today) if drawn.today is not None and drawn.ahead else None,
    )
