"""Weeks planned within a test, with less work than a practitioner's would take."""

from collections.abc import Iterator
from contextlib import contextmanager
from unittest.mock import patch


@contextmanager
def planned_within(work: float) -> Iterator[None]:
    """Within this a first week takes so much work, and each other one a second. [s, as work is
    counted]"""
    with (
        patch("nutrition.planning.search.WEEK_WORK", work),
        patch("nutrition.planning.proposals.OTHER_WORK", 1.0),
    ):
        yield
