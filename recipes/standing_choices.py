"""What was chosen for a line and shall hold for its words in every recipe from now on."""

from collections.abc import Mapping

from nutrition.recipe.model import MAX_LINES
from nutrition.recipe.reckoning import Facts
from pantry.keeping import CannotSettle, settle
from practice.models import Practice, User


def always_from(data: Mapping[str, str]) -> frozenset[str]:
    """The lines whose choice shall hold for their words."""
    return frozenset(
        data[f"line-{at}"]
        for at in range(1, MAX_LINES + 1)
        if f"always-{at}" in data and f"line-{at}" in data
    )


def settle_always(practice: Practice, by: User, facts: Facts, lines: frozenset[str]) -> list[str]:
    """Settle the words of these lines; what holds from now on, or why not, in words."""
    told = []
    for line in facts.lines:
        if line.text not in lines or not line.chosen or line.food is None or not line.phrase:
            continue
        try:
            if settle(practice, line.phrase, line.food, by) is not None:
                told.append(
                    f"From now on “{line.phrase}” means {line.food.name} here. It can be undone "
                    "under Pantry, Words of yours."
                )
        except CannotSettle as error:
            told.append(str(error))
    return told
