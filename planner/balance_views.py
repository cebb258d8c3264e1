"""Balance on the day's page: proposals for the whole day or for one meal, taken whole or in
part."""

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import reverse

from bowls.proposed import LEFT_OUT_G, OUTDATED, found, in_the_way_of, ticked
from clients.aims import WHOLE_DAY, meal_of, meal_options
from clients.gate import gate_of
from clients.held import held
from nutrition.portions.problem import BadProblem
from nutrition.written.typed_amounts import leveled_range
from planner.balancing import balancing, filled, item_of, portioned, unit_g
from planner.day import reckon_day
from planner.models import Day
from planner.picture import entries_round, ghosts
from planner.swapping import key_of
from planner.views import answer, opened, page_context, plan_for
from practice.undo import asked_by
from practice.versioned import StaleSave

NOTHING = "There is nothing to balance yet: put something into a meal below."


def _context(request: HttpRequest, day: Day) -> dict[str, object]:
    reckoned, plan = reckon_day(day), plan_for(day)
    context: dict[str, object] = {
        "day": day,
        "client": day.client,
        "balanced": True,
        "version": day.version,
    }
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
    gate, full = gate_of(plan), filled(reckoned, plan)
    if chosen is None and full.empty and full.share < 1:
        context["empty_words"] = (
            f"{', '.join(full.empty)}: still empty. The rest is balanced for its "
            f"{full.share * 100:.0f} % of the day."
        )
    try:
        made = balancing(reckoned, plan, meal, gate)
        if not made.entries:
            return context | {"problem": NOTHING}
        context["held"] = held(
            [item_of(entry) for entry in made.entries], gate, key_of(day), day.version
        )
        context |= {
            "held_url": f"{reverse('planner:swap', args=[day.pk])}?meal={context['add_meal']}",
            "without_url": reverse("planner:without", args=[day.pk]),
        }
        if "in_the_way" in request.GET:
            return context | in_the_way_of(made.problem, gate)
        context |= found(request, made.problem, portioned(made.entries), plan, gate, made.besides)
    except BadProblem as error:
        return context | {"problem": str(error)}
    return context | {
        "round": entries_round(made.entries),
        "ghosts": ghosts(made.entries, context["portions"]),
    }


def _take(request: HttpRequest, day: Day, portions: dict[str, float]) -> None:
    """Set these entries, as one step for undo; an entry of nothing is taken out. Raises
    StaleSave."""
    entries = {str(entry.row.pk): entry for meal in reckon_day(day).meals for entry in meal.entries}
    version, *by = asked_by(request)
    with day.changing(version or 0, *by):
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
    day, elsewhere = opened(request, pk)
    if elsewhere:
        return elsewhere
    if request.method == "POST":
        try:
            if portions := ticked(request.POST, [str(row.pk) for row in day.entries.all()]):
                _take(request, day, portions)
        except StaleSave:
            messages.error(request, OUTDATED)
        return answer(request, Day.with_removed.select_related("client").get(pk=pk))
    context = _context(request, day)
    if request.htmx:
        return render(
            request,
            "bowls/_in_the_way.html" if "in_the_way" in request.GET else "planner/_balance.html",
            context,
        )
    return render(request, "planner/page.html", page_context(request, day) | context)
