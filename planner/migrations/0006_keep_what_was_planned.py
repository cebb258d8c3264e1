"""Days planned so far keep their bowls and recipes as they are now, and what was kept for undo says of which version it is."""

import hashlib
import json
import re

from django.db import migrations

RECIPE = (
    "title", "role", "text", "servings", "batch_g", "claims", "serving_measure", "cooked_by", "method", "choices", "reduced", "measures",
)
PART = ("role", "food", "grams", "low_g", "high_g", "basis", "place", "star")
NAMED = re.compile(r"\[\s*recipe\s*:\s*([^\]]+?)\s*\]", re.I)

# What it changes of what somebody chose.
SAID = ""


def keep_planned(apps, schema_editor):
    Recipe, Entry = apps.get_model("recipes", "Recipe"), apps.get_model("planner", "DayEntry")
    Dish, Day = apps.get_model("planner", "PlannedDish"), apps.get_model("planner", "Day")

    def recipe_kept(recipe, path=()):
        kept = {name: getattr(recipe, name) for name in RECIPE}
        path, inside = (*path, recipe.title.strip().lower()), {}
        for name in dict.fromkeys(found.lower() for found in NAMED.findall(recipe.text)):
            own = Recipe.objects.filter(practice=recipe.practice_id, title__iexact=name).order_by("pk").first()
            if own is not None and name not in path and len(path) <= 6:
                inside[name] = recipe_kept(own, path)
        return kept | {"parts": inside}

    def bowl_kept(bowl):
        parts = [
            {name: getattr(row, name) for name in PART} | {"recipe": recipe_kept(row.recipe) if row.recipe_id else None}
            for row in bowl.parts.order_by("place", "pk").select_related("recipe")
        ]
        return {"title": bowl.name, "vessel_ml": bowl.vessel_ml, "bowl": parts}

    for entry in Entry.objects.filter(food="").select_related("bowl", "recipe", "day"):
        kept = json.loads(json.dumps(bowl_kept(entry.bowl) if entry.bowl_id else recipe_kept(entry.recipe)))
        digest = hashlib.sha256(json.dumps(kept, sort_keys=True).encode()).hexdigest()
        dish, _made = Dish.objects.get_or_create(practice_id=entry.day.practice_id, digest=digest, defaults={"data": kept})
        Entry.objects.filter(pk=entry.pk).update(planned=dish)
    for day in Day.objects.exclude(history=[]):
        count = len(day.history)
        history = [
            kept
            if isinstance(kept, dict)
            else {"version": max(day.version - count + at, 1), "by": 0, "who": "", "at": day.updated.isoformat(), "rows": kept}
            for at, kept in enumerate(day.history)
        ]
        Day.objects.filter(pk=day.pk).update(history=history)


class Migration(migrations.Migration):
    dependencies = [("planner", "0005_planned_as_it_was"), ("recipes", "0006_measures_as_written"), ("bowls", "0006_history_with_versions")]
    operations = [migrations.RunPython(keep_planned, migrations.RunPython.noop)]
