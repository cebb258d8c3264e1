"""The steps of a recipe as they were read, beside the text, and put right."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from clients.pages.context import PageRequest, settle_on
from kitchen.forms import StepForm
from kitchen.models import StepReading
from kitchen.work import corrections_of, times_of, work_of
from nutrition.prep.steps.clauses import clauses_of
from nutrition.prep.steps.task import Task, Worked
from nutrition.recipe.method_steps import split
from recipes.models import Recipe
from webkit.request_values import short

LONGEST_WORDS = 400


@dataclass(frozen=True, kw_only=True)
class PieceShown:
    """A piece of the written steps with what was read of it; no task where it is no work, or within
    another."""

    words: str
    task: Task | None
    within: str
    form: StepForm
    right: bool
    measured: str

    @property
    def name(self) -> str:
        return self.words.lower()


def _opened(request: PageRequest, pk: int) -> tuple[Recipe, HttpResponse | None]:
    recipe: Recipe = get_object_or_404(Recipe.with_removed.select_related("client"), pk=pk)
    return recipe, settle_on(request, recipe.client) if recipe.client_id else None


def _pieces(recipe: Recipe, work: Worked, typed: StepForm | None = None) -> list[PieceShown]:
    by_words = {task.text.lower(): task for task in work.tasks}
    events = {event.text.lower(): task for task in work.tasks for event in task.events}
    right, times = corrections_of(recipe), times_of(recipe)
    out = []
    for at, clause in enumerate(clauses_of(split(recipe.method))):
        name = clause.text.lower()
        task = by_words.get(name)
        holder = events.get(name)
        form = StepForm.of(name, task, right.get(name), at)
        if typed is not None and typed.words == name:
            form = typed
        minutes = times.get(name, [])
        out.append(
            PieceShown(
                words=clause.text,
                task=task,
                within=f"within “{holder.text}”" if holder and not task else "",
                form=form,
                right=name in right,
                measured=", ".join(f"{value:.0f}" for value in minutes),
            )
        )
    return out


def _context(recipe: Recipe, typed: StepForm | None = None) -> dict[str, Any]:
    work = work_of(recipe)
    pieces = _pieces(recipe, work, typed)
    written = {piece.name for piece in pieces}
    return {
        "recipe": recipe,
        "work": work,
        "pieces": pieces,
        "filled": [task for task in work.tasks if task.text.lower() not in written],
    }


def steps(request: PageRequest, pk: int) -> HttpResponse:
    recipe, elsewhere = _opened(request, pk)
    return elsewhere or render(request, "kitchen/steps.html", _context(recipe))


@require_POST
def right(request: PageRequest, pk: int) -> HttpResponse:
    """A piece put right, or left as it was read."""
    recipe, _elsewhere = _opened(request, pk)
    words = short(request.POST, "words", LONGEST_WORDS).lower()
    known = {clause.text.lower() for clause in clauses_of(split(recipe.method))}
    if words not in known:
        messages.error(request, "That step is no longer written so: look at it again.")
        return redirect("kitchen:steps", pk)
    rows = StepReading.objects.filter(recipe=recipe, words=words)
    if "as_read" in request.POST:
        for row in rows:
            row.delete()
        return redirect("kitchen:steps", pk)
    form = StepForm(request.POST, words=words)
    if not form.is_valid():
        return render(request, "kitchen/steps.html", _context(recipe, form), status=400)
    data = form.as_kept()
    StepReading.objects.update_or_create(
        recipe=recipe, words=words, defaults={"data": data, "by": request.user}
    )
    return redirect("kitchen:steps", pk)
