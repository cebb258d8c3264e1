"""Recipes written so far keep the cups that their practice had set: a later setting no longer reaches back."""

from django.db import migrations

# What it changes of what somebody chose.
SAID = ""


def as_written(apps, schema_editor):
    Recipe, Version = apps.get_model("recipes", "Recipe"), apps.get_model("recipes", "RecipeVersion")
    for recipe in Recipe.objects.select_related("practice"):
        Recipe.objects.filter(pk=recipe.pk).update(measures=recipe.practice.measures)
    for version in Version.objects.select_related("recipe__practice"):
        data = {"reduced": None, "measures": version.recipe.practice.measures} | version.data
        Version.objects.filter(pk=version.pk).update(data=data)


class Migration(migrations.Migration):
    dependencies = [("recipes", "0005_whose_measures_removal")]
    operations = [migrations.RunPython(as_written, migrations.RunPython.noop)]
