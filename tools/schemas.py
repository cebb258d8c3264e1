"""Write docs/schemas/: the JSON Schema of what each command takes and tells."""

import json
import sys
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))

from nutrition.requests.balance import BalanceAsked
from nutrition.requests.balance_answer import BalanceAnswer
from nutrition.requests.cautions import CautionsAnswer, CautionsAsked
from nutrition.requests.day import DayAnswer
from nutrition.requests.follow import FollowAsked
from nutrition.requests.follow_answer import FollowAnswer
from nutrition.requests.person import PersonGiven
from nutrition.requests.recipe_answer import RecipeAnswer
from nutrition.requests.structure import answer_schema, schema_of
from nutrition.requests.timeline import TimelineAsked
from nutrition.requests.timeline_answer import TimelineAnswer
from nutrition.requests.week import WeekAsked
from nutrition.requests.week_answer import WeekAnswer
from tools.made_pages import written_or_checked

FOLDER = ROOT / "docs" / "schemas"


def schemas() -> dict[str, dict[str, Any]]:
    """The schema of each command by its name; of `reckon`, which takes a recipe, the answer."""
    return {
        "balance": schema_of(BalanceAsked, BalanceAnswer),
        "cautions": schema_of(CautionsAsked, CautionsAnswer),
        "follow": schema_of(FollowAsked, FollowAnswer),
        "reckon": {"answer": answer_schema(RecipeAnswer)},
        "targets": schema_of(PersonGiven, DayAnswer),
        "timeline": schema_of(TimelineAsked, TimelineAnswer),
        "week": schema_of(WeekAsked, WeekAnswer),
    }


def pages() -> dict[Path, str]:
    """Each schema as it is published."""
    return {
        FOLDER / f"{name}.json": json.dumps(schema, indent=1, ensure_ascii=False) + "\n"
        for name, schema in schemas().items()
    }


if __name__ == "__main__":
    sys.exit(written_or_checked(__doc__, pages(), "schemas"))
