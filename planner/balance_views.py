"""Balance on the day's page: proposals for the whole day or for one meal, taken whole or in part."""

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, render
from django.urls import reverse

from bowls.balancing import refused_by
from bowls.proposed import LEFT_OUT_G, found, in_the_way_of, ticked
from clients.aims import WHOLE_DAY, meal_of, meal_options
from clients.swap_panel import Outdated
from nutrition.amounts import leveled_range
from nutrition.balance import BadProblem
from planner.balancing import balancing, portioned, unit_g
from planner.day import reckon_day
from planner.models import Day
from planner.picture import entries_round, ghosts
from planner.views import answer, page_context, plan_for

NOTHING = "There is nothing to balance yet: put something into a meal below."


def _context(request: HttpRequest, day: Day) -> dict[str, object]:
    reckoned, plan = reckon_day(day), plan_for(day)
    context: dict[str, object] = {"day": day, "client": day.client, "balanced": True, "version": day.version}
    if plan.day is None:
        return context | {"problem": plan.problem}
    meal = request.GET.get("meal", WHOLE_DAY)
    chosen = meal_of(plan.day, meal)
    context |= {
        "meal_options": meal_options(plan.day),
        "chosen_meal": chosen.key if chosen else WHOLE_DAY,
        "meal": chosen,
        "balance_url": reverse("planner:balance", args=[day.pk]),
        "add_url": reverse("planner:add", args=[day.pk]),
        "add_meal": chosen.key if chosen else "dinner",
    }
    try:
        made = balancing(reckoned, plan, meal)
        if not made.entries:
            return context | {"problem": NOTHING}
        if "in_the_way" in request.GET:
            return context | in_the_way_of(made.problem)
        context |= found(request, made.problem, portioned(made.entries), plan, made.besides)
    except BadProblem as error:
        return context | {"problem": str(error)}
    return context | {
        "round": entries_round(made.entries),
        "ghosts": ghosts(made.entries, context["portions"]),
        "refused": [(one.name, names) for one in made.entries if (names := refused_by(one.ingredients, plan.day.person.allergies))],
    }


def _take(day: Day, portions: dict[str, float]) -> None:
    """Set these entries, as one step for undo; an entry of nothing is taken out."""
    entries = {str(entry.row.pk): entry for meal in reckon_day(day).meals for entry in meal.entries}
    day.remember()
    for pk, grams in portions.items():
        row = entries[pk].row
        if grams < LEFT_OUT_G:
            row.delete()
            continue
        row.amount = grams / unit_g(entries[pk])
        if row.food:
            row.low_g, row.high_g = leveled_range(grams)
        else:
            row.amount = round(row.amount, 3)
        row.save()


def balance(request: HttpRequest, pk: int) -> HttpResponse:
    """Proposals for the day; a POST takes the ticked entries of one."""
    day = get_object_or_404(Day.objects.select_related("client"), pk=pk)
    if request.method == "POST":
        try:
            if portions := ticked(request.POST, [str(row.pk) for row in day.entries.all()], day.version):
                _take(day, portions)
        except Outdated as error:
            messages.error(request, str(error))
        return answer(request, day)
    context = _context(request, day)
    if request.htmx:
        return render(request, "bowls/_in_the_way.html" if "in_the_way" in request.GET else "planner/_balance.html", context)
    return render(request, "planner/page.html", page_context(request, day) | context)
