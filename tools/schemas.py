"""Write docs/schemas/: the JSON Schema of what each command takes and tells."""

import argparse
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
from nutrition.requests.week import WeekAsked
from nutrition.requests.week_answer import WeekAnswer

FOLDER = ROOT / "docs" / "schemas"


def schemas() -> dict[str, dict[str, Any]]:
    """The schema of each command by its name; of `reckon`, which takes a recipe, the answer."""
    return {
        "balance": schema_of(BalanceAsked, BalanceAnswer),
        "cautions": schema_of(CautionsAsked, CautionsAnswer),
        "follow": schema_of(FollowAsked, FollowAnswer),
        "reckon": {"answer": answer_schema(RecipeAnswer)},
        "targets": schema_of(PersonGiven, DayAnswer),
        "week": schema_of(WeekAsked, WeekAnswer),
    }


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--check", action="store_true", help="say whether they are current")
    check, stale = parser.parse_args().check, []
    FOLDER.mkdir(exist_ok=True)
    for name, schema in schemas().items():
        path = FOLDER / f"{name}.json"
        text = json.dumps(schema, indent=1, ensure_ascii=False) + "\n"
        if not check:
            path.write_text(text, encoding="utf-8")
        elif not path.exists() or path.read_text(encoding="utf-8") != text:
            stale.append(name)
    if stale:
        print(f"docs/schemas is not current ({', '.join(stale)}): python tools/schemas.py")
    return 1 if stale else 0


if __name__ == "__main__":
    sys.exit(main())
