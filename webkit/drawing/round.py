"""The round: a bowl from above. Sectors are the parts by volume, the radius is how full the vessel
is, the rim carries each part's share of a chosen quantity."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

CENTER = 200.0
RIM_OUTER, RIM_INNER = 190.0, 172.0
BOWL = 160.0
LIFT = 9.0
LABEL_AT = 0.62
MIN_LABEL_ANGLE = 0.16


@dataclass(frozen=True, kw_only=True)
class Slice:
    """What is drawn of one part: `volume` [mL], `share` of the rim's quantity [0 to 1, None:
    unknown]."""

    role: str
    volume: float
    share: float | None
    star: bool = False
    name: str = ""
    number: int = 0
    pk: int = 0
    # where a change of it is sent to
    url: str = ""


@dataclass(frozen=True, kw_only=True)
class Sector:
    path: str
    rim_path: str
    label_x: float
    label_y: float
    labeled: bool
    handle_x: float
    handle_y: float
    dx: float
    dy: float
    start: float
    end: float


@dataclass(frozen=True)
class Round:
    sectors: list[Sector]
    fill_radius: float
    full: float
    overflowing: bool


def _point(angle: float, radius: float) -> tuple[float, float]:
    return CENTER + radius * math.sin(angle), CENTER - radius * math.cos(angle)


def _wedge(start: float, end: float, radius: float) -> str:
    if end - start >= 2 * math.pi - 1e-6:
        top, bottom = CENTER - radius, CENTER + radius
        half = f"A{radius:.1f} {radius:.1f} 0 1 1 {CENTER:.1f}"
        return f"M{CENTER:.1f} {top:.1f}{half} {bottom:.1f}{half} {top:.1f}Z"
    (x1, y1), (x2, y2) = _point(start, radius), _point(end, radius)
    large = 1 if end - start > math.pi else 0
    return (
        f"M{CENTER:.1f} {CENTER:.1f}L{x1:.1f} {y1:.1f}A{radius:.1f} {radius:.1f} 0 {large} "
        f"1 {x2:.1f} {y2:.1f}Z"
    )


def _arc(start: float, end: float) -> str:
    if end <= start:
        return ""
    if end - start >= 2 * math.pi - 1e-3:
        # a whole ring has no ends: two halves
        return _arc(start, start + math.pi) + _arc(start + math.pi, start + 2 * math.pi - 2e-3)
    (x1, y1), (x2, y2) = _point(start, RIM_OUTER), _point(end, RIM_OUTER)
    (x3, y3), (x4, y4) = _point(end, RIM_INNER), _point(start, RIM_INNER)
    large = 1 if end - start > math.pi else 0
    return (
        f"M{x1:.1f} {y1:.1f}A{RIM_OUTER:g} {RIM_OUTER:g} 0 {large} 1 {x2:.1f} {y2:.1f}"
        f"L{x3:.1f} {y3:.1f}A{RIM_INNER:g} {RIM_INNER:g} 0 {large} 0 {x4:.1f} {y4:.1f}Z"
    )


def draw(slices: Sequence[Slice], vessel_ml: float) -> Round:
    """Geometry of a bowl of these parts in a vessel of `vessel_ml`. [mL]

    Seen from above, area stands for volume: the filled radius is the square root of the filled
    share.
    """
    total = sum(part.volume for part in slices)
    full = total / vessel_ml if vessel_ml > 0 else 0.0
    radius = BOWL * math.sqrt(min(full, 1.0))
    known = sum(part.share or 0.0 for part in slices)
    sectors, at, rim_at = [], 0.0, 0.0
    for part in slices:
        angle = 2 * math.pi * part.volume / total if total > 0 else 0.0
        rim_angle = 2 * math.pi * (part.share or 0.0) / known if known > 0 else 0.0
        middle = at + angle / 2
        label_x, label_y = _point(middle, radius * (LABEL_AT if len(slices) > 1 else 0.0))
        handle_x, handle_y = _point(at + angle, radius)
        lift = LIFT if part.star and len(slices) > 1 else 0.0
        sectors.append(
            Sector(
                path=_wedge(at, at + angle, radius),
                rim_path=_arc(rim_at, rim_at + rim_angle),
                label_x=round(label_x, 1),
                label_y=round(label_y, 1),
                labeled=angle > MIN_LABEL_ANGLE,
                handle_x=round(handle_x, 1),
                handle_y=round(handle_y, 1),
                dx=round(lift * math.sin(middle), 1),
                dy=round(-lift * math.cos(middle), 1),
                start=round(at, 4),
                end=round(at + angle, 4),
            )
        )
        at += angle
        rim_at += rim_angle
    return Round(sectors, round(radius, 1), full, full > 1.0)


def picture(slices: Sequence[Slice], vessel_ml: float) -> dict[str, object]:
    """What the template of a round needs: the drawing, and each part beside its sector. [mL]"""
    drawing = draw(slices, vessel_ml)
    return {"drawing": drawing, "pairs": list(zip(slices, drawing.sectors, strict=True))}


def outlines(slices: Sequence[Slice], vessel_ml: float) -> list[str]:
    """The paths of the sectors alone, for a proposal drawn over what is there. [mL]"""
    return [sector.path for sector in draw(slices, vessel_ml).sectors]
