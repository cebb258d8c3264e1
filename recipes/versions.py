"""Versions of a recipe: kept with a reason, compared, gone back to."""

from recipes.models import KEPT, Recipe, RecipeVersion


def keep(recipe: Recipe, by, why: str) -> RecipeVersion:
    """The recipe as it stands becomes its next version."""
    latest = recipe.versions.first()
    data = {name: getattr(recipe, name) for name in KEPT}
    return RecipeVersion.objects.create(recipe=recipe, number=latest.number + 1 if latest else 1, why=why[:200], by=by, data=data)


def keep_first(recipe: Recipe, by) -> None:
    """Before the first version with a reason: what was there, so that one can go back to it."""
    if not recipe.versions.exists():
        keep(recipe, by, "as it was")


def go_back(recipe: Recipe, version: RecipeVersion, by) -> RecipeVersion:
    """The recipe becomes what it was in a version; what it was until now is kept, and so is the step back."""
    keep_first(recipe, by)
    latest = recipe.versions.first()
    if latest is not None and {name: getattr(recipe, name) for name in KEPT} != latest.data:
        keep(recipe, by, "before going back")
    for name, value in version.data.items():
        setattr(recipe, name, value)
    recipe.save_over(recipe.version)
    return keep(recipe, by, f"back to version {version.number}: {version.why}")
