"""Undo for bowls: the parts as they were before each change."""

from bowls.models import Bowl, BowlPart

KEPT = 30
FIELDS = ("role", "food", "recipe_id", "grams", "low_g", "high_g", "basis", "place", "star", "locked", "least_g", "most_g")


def remember(bowl: Bowl) -> None:
    """Keep the present parts, before changing them."""
    state = [{field: getattr(row, field) for field in FIELDS} | {"pk": row.pk} for row in bowl.parts.all()]
    bowl.history = [*bowl.history, state][-KEPT:]
    bowl.version += 1
    bowl.save()


def step_back(bowl: Bowl) -> bool:
    """Put the parts back as they were before the last change; False when there is none."""
    if not bowl.history:
        return False
    state = bowl.history.pop()
    bowl.parts.exclude(pk__in=[row["pk"] for row in state]).delete()
    for row in state:
        # a state kept before a field was there leaves it as it is
        values = {field: row[field] for field in FIELDS if field in row}
        BowlPart.objects.update_or_create(pk=row["pk"], bowl=bowl, defaults=values)
    bowl.version += 1
    bowl.save()
    return True
