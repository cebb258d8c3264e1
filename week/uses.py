"""Which weeks hold a recipe or a bowl."""

from bowls.models import Bowl
from recipes.models import Recipe
from week.models import WeekEntry


def weeks_with(dish: Recipe | Bowl) -> str:
    """How many planned weeks hold a recipe or a bowl, in words; empty for none."""
    found = WeekEntry.objects.filter(
        **{"bowl" if isinstance(dish, Bowl) else "recipe": dish}, week__removed=None
    )
    weeks = found.values("week").distinct().count()
    return f"{weeks} planned week{'s' if weeks > 1 else ''}" if weeks else ""
