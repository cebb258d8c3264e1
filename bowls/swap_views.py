"""Swaps on the bowl page, beside the gap they close."""

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, render
from django.urls import reverse
from django.utils.text import capfirst

from bowls.balance_views import NO_PARTS, NO_PLAN
from bowls.balancing import options_from
from bowls.bowl import reckon_bowl
from bowls.models import Bowl
from bowls.swapping import apply, subject_of
from bowls.views import answer, client_of, page_context
from clients.aims import meal_of, meal_options, refusals_of
from clients.in_force import plan_of
from clients.swap_panel import Outdated, panel, taken


def _context(request: HttpRequest, bowl: Bowl) -> dict[str, object]:
    reckoned, client = reckon_bowl(bowl), client_of(request, bowl)
    plan = plan_of(client) if client else None
    context: dict[str, object] = {"bowl": bowl, "client": client, "swapped": True, "swap_url": reverse("bowls:swap", args=[bowl.pk])}
    if plan is None or plan.day is None:
        return context | {"problem": plan.problem if plan and plan.problem else NO_PLAN}
    if not reckoned.parts:
        return context | {"problem": NO_PARTS}
    options = options_from(request.GET, plan.day, reckoned)
    meal = meal_of(plan.day, options.meal)
    context |= {"judged": options.meal, "meal_options": meal_options(plan.day), "subject_words": "This bowl is"}
    return context | {"take_url": context["swap_url"], "live": True} | panel(subject_of(reckoned, refusals_of(plan)), plan, meal)


def swap(request: HttpRequest, pk: int) -> HttpResponse:
    """The changes that close the gap; a POST takes one, as one step for undo."""
    bowl = get_object_or_404(Bowl, pk=pk)
    if request.method == "POST":
        try:
            steps, why = taken(request.POST.get("change", ""), f"bowl-{bowl.pk}", bowl.version)
            apply(bowl, steps)
            messages.success(request, f"{capfirst(why)}.")
        except Outdated as error:
            messages.error(request, str(error))
        return answer(request, bowl)
    context = _context(request, bowl)
    if request.htmx:
        return render(request, "clients/_swap_panel.html", context)
    return render(request, "bowls/page.html", page_context(request, bowl) | context)
