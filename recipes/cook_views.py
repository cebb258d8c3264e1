"""The cook view: one step at a time, large, with timers and every line to tick off."""

from django.http import HttpResponse
from django.shortcuts import get_object_or_404, render

from clients.pages.context import PageRequest
from clients.plan.cautions import of_foods
from clients.plan.in_force import plan_of
from clients.plan.standing import asked_first, for_the_household
from nutrition.recipe.kitchen_notes import notes_on
from nutrition.recipe.method_steps import read_steps
from recipes.facts import facts_of
from recipes.models import Recipe
from webkit.request_values import key_in


def cook(request: PageRequest, pk: int) -> HttpResponse:
    recipe: Recipe = get_object_or_404(Recipe.with_removed, pk=pk)
    facts = facts_of(recipe)
    worked = read_steps(recipe.method, facts.lines)
    notes = notes_on(worked, facts.lines)
    count = len(worked.steps)
    at = min(max(key_in(request.GET.get("step", "1")) or 1, 1), max(count, 1))
    step = worked.steps[at - 1] if worked.steps else None
    told = of_foods(plan_of(request.for_client), facts.foods(), lines=facts.unread)
    context = {
        "ask_household": for_the_household(request.practice, asked_first(request.for_client, told)),
        "recipe": recipe,
        "facts": facts,
        "step": step,
        "at": at,
        "count": count,
        "lines": [
            (i, line, step is not None and i in step.uses) for i, line in enumerate(facts.lines)
        ],
        "notes": [note for note in notes if note.step in (None, at)],
        "previous": at - 1 if at > 1 else None,
        "following": at + 1 if at < count else None,
    }
    return render(request, "recipes/cook.html", context)
