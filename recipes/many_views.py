"""Many recipes at once: files of whatever kind, each read or refused by itself, with a report."""

from __future__ import annotations

import zipfile
from collections.abc import Iterator
from dataclasses import dataclass
from io import BytesIO
from typing import Any

from django.db import transaction
from django.http import HttpResponse
from django.shortcuts import render

from clients.pages.context import PageRequest
from nutrition.formats.recipe_files import read_recipe
from nutrition.recipe.model import UnreadableRecipe
from practice.models import Practice, User
from recipes.facts import facts_of
from recipes.forms import MOST_BYTES, ManyForm, there_already
from recipes.models import Recipe
from recipes.taking_in import store

# So many files at once, and so much in an archive of them. [bytes]
MOST_FILES, MOST_UNPACKED = 200, 50_000_000


@dataclass(frozen=True, kw_only=True)
class Report:
    """What became of a file: the recipe, how many of its lines were read, what was said of it; or
    why nothing was taken."""

    name: str
    recipe: Recipe | None = None
    lines: int = 0
    unread: int = 0
    told: tuple[str, ...] = ()
    why: str = ""


def _named(files: list[Any]) -> Iterator[tuple[str, bytes | None, str]]:
    """Each file, those of an archive one by one: its name and content, or why it has none."""
    left = MOST_UNPACKED
    for file in files:
        content = file.read()
        if not zipfile.is_zipfile(BytesIO(content)):
            yield file.name, content, ""
            continue
        with zipfile.ZipFile(BytesIO(content)) as packed:
            for one in packed.infolist():
                if one.is_dir() or one.filename.startswith("__MACOSX/"):
                    continue
                left -= one.file_size
                if left < 0 or one.flag_bits & 1:
                    yield one.filename, None, "it is too large, or locked"
                    continue
                yield one.filename, packed.read(one), ""


def _taken(name: str, content: bytes, practice: Practice, by: User) -> Report:
    if len(content) > MOST_BYTES:
        return Report(name=name, why=f"it is over {MOST_BYTES // 1_000_000} MB: that is no recipe")
    try:
        shared = read_recipe(content.decode("utf-8"), name)
        twin = there_already(shared)
        if twin is not None:
            return Report(name=name, why=f"it is there already: {twin.title}")
        with transaction.atomic():
            recipe, told = store(shared, practice, by)
    except UnicodeDecodeError:
        return Report(name=name, why="it is not text in UTF-8")
    except UnreadableRecipe as error:
        return Report(name=name, why=str(error))
    facts = facts_of(recipe)
    return Report(
        name=name,
        recipe=recipe,
        lines=len(facts.lines),
        unread=len(facts.unresolved),
        told=tuple(told),
    )


def take_in_many(request: PageRequest) -> HttpResponse:
    """Every file that can be read becomes a recipe; the report says of each how surely."""
    if request.method != "POST":
        return render(request, "recipes/import_many.html", {"form": ManyForm()})
    form = ManyForm(request.POST, request.FILES)
    if not form.is_valid():
        return render(request, "recipes/import_many.html", {"form": form}, status=400)
    reports = []
    for at, (name, content, why) in enumerate(_named(form.cleaned_data["file"])):
        if at >= MOST_FILES:
            reports.append(Report(name=name, why=f"more than {MOST_FILES} files: take it in apart"))
        elif content is None:
            reports.append(Report(name=name, why=why))
        else:
            reports.append(_taken(name, content, request.practice, request.user))
    context = {
        "form": ManyForm(),
        "reports": reports,
        "taken": sum(one.recipe is not None for one in reports),
        "whole": sum(one.recipe is not None and not one.unread for one in reports),
    }
    return render(request, "recipes/import_many.html", context)
