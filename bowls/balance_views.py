"""Balance on the bowl page: proposals as ghost outlines on the round, taken whole or in part."""

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import reverse

from bowls.balancing import item_of, options_from, portioned, problem_for
from bowls.bowl import reckon_bowl
from bowls.models import Bowl
from bowls.picture import bowl_round, ghosts
from bowls.proposed import LEFT_OUT_G, OUTDATED, found, in_the_way_of, ticked
from bowls.swapping import key_of
from bowls.views import answer, client_of, opened, page_context
from clients.aims import meal_of, meal_options
from clients.gate import gate_of
from clients.held import held
from clients.in_force import plan_of
from nutrition.portions.problem import BadProblem
from practice.undo import asked_by
from practice.versioned import StaleSave

NO_PLAN = "Choose a client whose targets are known: a bowl is balanced against them."
NO_PARTS = "There is nothing to balance yet: add parts below."


def _context(request: HttpRequest, bowl: Bowl) -> dict[str, object]:
    reckoned = reckon_bowl(bowl)
    client = client_of(request, bowl)
    plan = plan_of(client) if client else None
    context: dict[str, object] = {
        "bowl": bowl,
        "reckoned": reckoned,
        "client": client,
        "balanced": True,
        "version": bowl.version,
    }
    context["round"] = bowl_round(reckoned, "protein_g")
    if plan is None or plan.day is None:
        return context | {"problem": plan.problem if plan and plan.problem else NO_PLAN}
    if not reckoned.parts:
        return context | {"problem": NO_PARTS}
    options, gate = options_from(request.GET, plan.day, reckoned), gate_of(plan)
    context |= {
        "options": options,
        "meal_options": meal_options(plan.day),
        "meal": meal_of(plan.day, options.meal),
        "school": plan.day.school,
        "held": held([item_of(part) for part in reckoned.parts], gate, key_of(bowl), bowl.version),
        "held_url": reverse("bowls:swap", args=[bowl.pk]),
        "without_url": reverse("bowls:without", args=[bowl.pk]),
        "balance_url": reverse("bowls:balance", args=[bowl.pk]),
        "add_url": reverse("bowls:add", args=[bowl.pk]),
    }
    try:
        problem = problem_for(reckoned, plan, options, gate)
        if "in_the_way" in request.GET:
            return context | in_the_way_of(problem, gate)
        context |= found(request, problem, portioned(reckoned), plan, gate)
    except BadProblem as error:
        return context | {"problem": str(error)}
    return context | {"ghosts": ghosts(reckoned, context["portions"])}


def _take(request: HttpRequest, bowl: Bowl, portions: dict[str, float]) -> None:
    """Set the portions of these parts, as one step for undo; a part of nothing is taken out. Raises
    StaleSave."""
    version, *by = asked_by(request)
    with bowl.changing(version or 0, *by) as stored:
        for row in stored.parts.filter(pk__in=portions):
            grams = portions[str(row.pk)]
            if grams < LEFT_OUT_G:
                row.delete()
            else:
                row.level(grams)
                row.save()


def balance(request: HttpRequest, pk: int) -> HttpResponse:
    """Proposals for the bowl; a POST takes the ticked parts of one."""
    bowl, elsewhere = opened(request, pk)
    if elsewhere:
        return elsewhere
    if request.method == "POST":
        try:
            if portions := ticked(request.POST, [str(row.pk) for row in bowl.parts.all()]):
                _take(request, bowl, portions)
        except StaleSave:
            messages.error(request, OUTDATED)
        return answer(request, Bowl.with_removed.get(pk=pk))
    context = _context(request, bowl)
    if request.htmx:
        return render(
            request,
            "bowls/_in_the_way.html" if "in_the_way" in request.GET else "bowls/_balance.html",
            context,
        )
    return render(request, "bowls/page.html", page_context(request, bowl) | context)
