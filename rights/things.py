"""The kinds of record whose own history has a page, by their table."""

from __future__ import annotations

from typing import Any

from bowls.page import PAGES as BOWLS
from planner.page import PAGES as DAYS
from practice.record_pages import RecordPages
from recipes.page import PAGES as RECIPES
from record.recorded import kind_of
from week.page import PAGES as WEEKS

PAGES_OF: dict[str, RecordPages[Any]] = {
    kind_of(pages.model): pages for pages in (BOWLS, DAYS, RECIPES, WEEKS)
}
