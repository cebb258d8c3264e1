"""Times of a day as they are written, in minutes from the midnight before the dishes are ready."""

from __future__ import annotations

import re
from datetime import date, datetime, timedelta

DAY = 1440
# Who wants to eat before this and begins later than that means the evening before. [min]
NIGHT_ENDS = 6 * 60
_TIME = re.compile(
    r"^(?:(?P<day>\d{4}-\d{2}-\d{2})[T ]\s*)?"
    r"(?P<hour>\d{1,2})(?:[:.h](?P<minute>\d{2}))?(?::\d{2})?"
    r"\s*(?P<half>[ap]\.?m\.?)?$",
    re.I,
)


def read_moment(text: str, day: date) -> tuple[int, bool]:
    """A time of day, or a date with one, in minutes from the midnight of `day`; and whether its
    date was given. [min] Raises ValueError for what is no time."""
    found = _TIME.match(text.strip())
    if found is None:
        raise ValueError(f"“{text}” is no time of day: write 18:30")
    hour, minute = int(found["hour"]), int(found["minute"] or 0)
    half = (found["half"] or "").lower().replace(".", "")
    if half:
        if not 1 <= hour <= 12:
            raise ValueError(f"“{text}” is no time of day: write 6:30 pm or 18:30")
        hour = hour % 12 + (12 if half == "pm" else 0)
    if hour > 23 or minute > 59:
        raise ValueError(f"“{text}” is no time of day: write 18:30")
    own = day
    if found["day"]:
        try:
            own = date.fromisoformat(found["day"])
        except ValueError:
            raise ValueError(f"“{found['day']}” is no date") from None
    return (own - day).days * DAY + hour * 60 + minute, bool(found["day"])


def clock(minutes: int) -> str:
    """A time of day without its date: "18:30". [min]"""
    return f"{minutes // 60 % 24:02}:{minutes % 60:02}"


def moment(minutes: int, day: date) -> str:
    """A time with its date where that is another day: "18:30", "2026-12-04 21:00". [min]"""
    if 0 <= minutes < DAY:
        return clock(minutes)
    at = datetime.combine(day, datetime.min.time()) + timedelta(minutes=minutes)
    return f"{at:%Y-%m-%d %H:%M}"
