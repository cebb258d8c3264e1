"""Versions of a recipe: every save keeps one, compared, gone back to."""

from django.db import transaction

from nutrition.part import part_named
from practice.models import User
from practice.versioned import StaleSave
from recipes.facts import recipe_called
from recipes.models import KEPT, Recipe, RecipeVersion

WHY_LENGTH = 200
WORDS = {
    "title": "title",
    "role": "part of a bowl",
    "text": "ingredients",
    "servings": "servings",
    "batch_g": "weight of the batch",
    "claims": "what it says it serves",
    "serving_measure": "measure of a serving",
    "cooked_by": "how it is cooked",
    "method": "method",
    "choices": "decisions for lines",
    "reduced": "what is boiled away",
    "measures": "cups and spoons",
}


def keep(recipe: Recipe, by, why: str) -> RecipeVersion:
    """The recipe as it stands becomes its next version."""
    latest = recipe.versions.first()
    number = latest.number + 1 if latest else 1
    return RecipeVersion.objects.create(
        recipe=recipe, number=number, why=why[:WHY_LENGTH], by=by, data=recipe.kept()
    )


def is_kept(recipe: Recipe) -> bool:
    """Whether the recipe as it stands is its latest version."""
    latest = recipe.versions.first()
    return latest is not None and recipe.kept() == {
        name: latest.data.get(name, recipe.kept()[name]) for name in KEPT
    }


def differing(one: Recipe, other: Recipe) -> list[str]:
    """The fields in which two recipes differ."""
    return [name for name in KEPT if getattr(one, name) != getattr(other, name)]


def save_kept(recipe: Recipe, version: int, by: User, why: str = "") -> RecipeVersion:
    """Save over `version` of the recipe; what it was until now is a version, and so is what it is
    now. Raises StaleSave.

    Other recipes that name it follow a new title, each with a version of its own.
    """
    with transaction.atomic():
        before = Recipe.with_removed.get(pk=recipe.pk)
        if before.version != version:
            raise StaleSave(before)
        if not is_kept(before):
            keep(before, by, "as it was")
        recipe.save_over(version)
        if before.title != recipe.title:
            rename_in_others(before.title, recipe.title, by)
        changed = differing(before, recipe)
        if not changed and not why:
            return recipe.versions.first()
        return keep(recipe, by, why or f"changed: {', '.join(WORDS[name] for name in changed)}")


def naming(title: str) -> list[Recipe]:
    """The recipes that name another of this title as a part."""
    needle = title.strip().lower()
    found = Recipe.with_removed.filter(text__icontains="[recipe:").filter(
        text__icontains=title.strip()
    )
    return [recipe for recipe in found if any(name == needle for name in _names(recipe))]


def _names(recipe: Recipe) -> list[str]:
    return [name.lower() for name in map(part_named, recipe.text.splitlines()) if name]


def rename_in_others(old: str, new: str, by: User) -> list[Recipe]:
    """Recipes that name one by its old title name it by its new one from now on; nothing else of
    them changes."""
    if recipe_called(old) is not None:
        # another recipe has that title: the lines mean that one from now on, and it is said on
        # their pages
        return []
    changed = naming(old)
    for recipe in changed:
        if not is_kept(recipe):
            keep(recipe, by, "as it was")
        lines = {}
        for line in recipe.text.splitlines():
            lines[line] = _renamed(line, old, new)
        recipe.choices = {_rekeyed(key, lines): choice for key, choice in recipe.choices.items()}
        recipe.text = "\n".join(lines[line] for line in recipe.text.splitlines())
        recipe.save_over(recipe.version)
        keep(recipe, by, f"“{old}” is called “{new}” now"[:WHY_LENGTH])
    return changed


def _rekeyed(key: str, lines: dict[str, str]) -> str:
    text, tab, number = key.partition("\t")
    return lines.get(text, text) + tab + number


def _renamed(line: str, old: str, new: str) -> str:
    at = line.lower().find("[recipe:")
    if at < 0:
        return line
    end = line.find("]", at)
    name = line[at + len("[recipe:") : end]
    return (
        f"{line[:at]}[recipe: {new}{line[end:]}"
        if end > 0 and name.strip().lower() == old.strip().lower()
        else line
    )


def go_back(recipe: Recipe, version: RecipeVersion, by) -> RecipeVersion:
    """The recipe becomes what it was in a version; what it was until now is kept, and so is the
    step back."""
    for name, value in version.data.items():
        setattr(recipe, name, value)
    return save_kept(recipe, recipe.version, by, f"back to version {version.number}: {version.why}")
