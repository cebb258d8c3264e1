"""Versions of a recipe: every save keeps one, compared, gone back to."""

from django.db import transaction

from nutrition.recipe.notation import naming_part
from practice.models import User
from practice.versioned import StaleSave
from recipes.facts import named, note_parts
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
    if latest is None:
        return False
    now = recipe.kept()
    return all(latest.data.get(name, now[name]) == now[name] for name in KEPT)


def _changed(recipe: Recipe) -> list[str]:
    """The fields in which a recipe is not its latest version."""
    latest, now = recipe.versions.first(), recipe.kept()
    return [name for name in KEPT if latest is None or latest.data.get(name) != now[name]]


def differing(one: Recipe, other: Recipe) -> list[str]:
    """The fields in which two recipes differ."""
    return [name for name in KEPT if getattr(one, name) != getattr(other, name)]


def save_kept(recipe: Recipe, version: int, by: User, why: str = "") -> RecipeVersion:
    """Save over `version` of the recipe; what it was before it was changed is a version, and so is
    what it is now: what was kept by itself meanwhile is part of the change. Raises StaleSave.

    Other recipes that name it follow a new title, each with a version of its own.
    """
    with transaction.atomic():
        before = Recipe.with_removed.get(pk=recipe.pk)
        if before.version != version:
            raise StaleSave(before)
        if not before.versions.exists():
            keep(before, by, "as it was")
        # what was kept by itself since the last version counts as changed now
        unkept = not is_kept(before)
        note_parts(recipe)
        recipe.save_over(version)
        if before.title != recipe.title:
            rename_in_others(recipe, before.title, by)
        changed = _changed(recipe) if unkept else differing(before, recipe)
        if not changed and not why:
            return recipe.versions.first()  # type: ignore[return-value]
        return keep(recipe, by, why or f"changed: {', '.join(WORDS[name] for name in changed)}")


def save_unkept(recipe: Recipe, version: int, by: User) -> None:
    """Save over `version` of the recipe while it is written: what it was until now is a version,
    what it is now becomes one when that is asked for. Raises StaleSave."""
    with transaction.atomic():
        before = Recipe.with_removed.get(pk=recipe.pk)
        if before.version != version:
            raise StaleSave(before)
        if not differing(before, recipe):
            recipe.version = before.version
            return
        if before.title != recipe.title:
            # others follow a title, each with a version of its own: that is no matter of typing
            save_kept(recipe, version, by)
            return
        if not before.versions.exists():
            keep(before, by, "as it was")
        note_parts(recipe)
        recipe.save_over(version)


def naming(recipe: Recipe) -> list[Recipe]:
    """The recipes that have this one as a part."""
    found = Recipe.with_removed.filter(text__icontains="[recipe:").exclude(pk=recipe.pk)
    return [other for other in found if _name_in(other, recipe) is not None]


def _name_in(other: Recipe, recipe: Recipe) -> str | None:
    """What another recipe's lines call this one; None where they do not name it."""
    for name in named(other.core().lines):
        known = other.part_ids.get(name)
        means = recipe.pk == known if known else name == recipe.title.strip().lower()
        if means:
            return name
    return None


def rename_in_others(recipe: Recipe, old: str, by: User) -> list[Recipe]:
    """Recipes that have this one as a part name it by its new title from now on; nothing else of
    them changes."""
    before = Recipe(pk=recipe.pk, practice_id=recipe.practice_id, title=old)
    changed = naming(before)
    for other in changed:
        if not is_kept(other):
            keep(other, by, "as it was")
        called = _name_in(other, before) or old
        lines = {line: naming_part(line, called, recipe.title) for line in other.text.splitlines()}
        other.choices = {_rekeyed(key, lines): choice for key, choice in other.choices.items()}
        other.text = "\n".join(lines[line] for line in other.text.splitlines())
        ids = {name: pk for name, pk in other.part_ids.items() if name != called}
        other.part_ids = ids | {recipe.title.strip().lower(): recipe.pk}
        other.save_over(other.version)
        keep(other, by, f"“{old}” is called “{recipe.title}” now"[:WHY_LENGTH])
    return changed


def _rekeyed(key: str, lines: dict[str, str]) -> str:
    text, tab, number = key.partition("\t")
    return lines.get(text, text) + tab + number


def go_back(recipe: Recipe, version: RecipeVersion, by) -> RecipeVersion:
    """The recipe becomes what it was in a version; what it was until now is kept, and so is the
    step back."""
    if not is_kept(recipe):
        keep(recipe, by, "as it was")
    for name, value in version.data.items():
        setattr(recipe, name, value)
    return save_kept(recipe, recipe.version, by, f"back to version {version.number}: {version.why}")
