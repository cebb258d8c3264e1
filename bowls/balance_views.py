"""Balance on the bowl page: proposals as ghost outlines, taken whole or in part."""

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, render

from bowls.balancing import WHOLE_DAY, Options, meal_of, options_from, problem_for, refused_by, shown
from bowls.bowl import Reckoned, reckon_bowl
from bowls.history import remember
from bowls.models import Bowl
from bowls.picture import bowl_round, ghosts
from bowls.views import answer, client_of, page_context
from clients.in_force import Plan, plan_of, reading
from nutrition.balance import BadProblem, Problem, name_of
from nutrition.balance_hints import closest, colliding, hints, misses
from nutrition.proposals import proposals
from nutrition.quantities import amount_of
from nutrition.staples import staple_parts
from nutrition.statements import Target
from practice.models import User

NO_PLAN = "Choose a client whose targets are known: a bowl is balanced against them."
NO_PARTS = "There is nothing to balance yet: add parts below."


def _targets(problem: Problem, plan: Plan) -> dict[str, Target]:
    """Each aim as a target, for a reading of where a proposal stands."""
    of_day = plan.day.targets if plan.day else {}
    return {
        aim.key: Target(aim.key, aim.low, aim.aim, aim.high, of_day[aim.key].unit, of_day[aim.key].source, of_day[aim.key].reason)
        for aim in problem.aims
    }


def _found(request: HttpRequest, bowl: Bowl, reckoned: Reckoned, plan: Plan, options: Options) -> dict[str, object]:
    problem = problem_for(reckoned, plan, options)
    told = proposals(problem)
    first = told[0].answer
    missed = misses(problem, first)
    wanted = _targets(problem, plan)
    show = int(request.GET.get("show", "0")) if request.GET.get("show", "0").isdigit() else 0
    show = min(show, len(told) - 1)
    rows = [
        {"shown": one, "readings": [reading(wanted[key], amount_of(one.profile, key)) for key in wanted]}
        for one in (shown(reckoned, proposal) for proposal in told)
    ]
    collisions = [(name_of(name), closest(problem, name), name) for name in colliding(problem)] if first.status == "infeasible" else []
    found_hints = hints(problem, first, staple_parts()) if missed or collisions else []
    names = {food.id for food in staple_parts()}
    return {
        "proposals": rows,
        "show": show,
        "misses": missed,
        "collisions": collisions,
        "hints": [(hint, hint.kind == "add" and hint.id in names) for hint in found_hints],
        "ghosts": ghosts(reckoned, told[show].answer.portions),
    }


def _context(request: HttpRequest, bowl: Bowl) -> dict[str, object]:
    reckoned = reckon_bowl(bowl)
    client = client_of(request, bowl)
    plan = plan_of(client) if client else None
    context: dict[str, object] = {"bowl": bowl, "reckoned": reckoned, "client": client, "balanced": True}
    context["round"] = bowl_round(reckoned, "protein_g")
    if plan is None or plan.day is None:
        return context | {"problem": plan.problem if plan and plan.problem else NO_PLAN}
    if not reckoned.parts:
        return context | {"problem": NO_PARTS}
    options = options_from(request.GET, plan.day, reckoned)
    context |= {
        "options": options,
        "meal_options": [(meal.key, f"{meal.name.lower()}, {meal.share * 100:.0f} % of the day") for meal in plan.day.meals],
        "whole_day": WHOLE_DAY,
        "meal": meal_of(plan.day, options.meal),
        "school": plan.day.school,
        "refused": [(part.name, names) for part in reckoned.parts if (names := refused_by(part, plan.day.person.allergies))],
    }
    try:
        return context | _found(request, bowl, reckoned, plan, options)
    except BadProblem as error:
        return context | {"problem": str(error)}


def _take(bowl: Bowl, data: dict[str, str], taken: list[str]) -> None:
    """Set the portions of the parts that were ticked, as one step for undo; a part of nothing is taken out."""
    rows = {str(row.pk): row for row in bowl.parts.all()}
    changes = []
    for pk in taken:
        try:
            grams = float(data.get(f"grams-{pk}", ""))
        except ValueError:
            continue
        if pk in rows and 0 <= grams <= 10_000:
            changes.append((rows[pk], grams))
    if not changes:
        return
    remember(bowl)
    for row, grams in changes:
        if grams < 0.4:
            row.delete()
        else:
            row.grams, row.low_g, row.high_g, row.basis = grams, grams * 0.94, grams * 1.06, "leveled measure"
            row.save()


def balance(request: HttpRequest, pk: int) -> HttpResponse:
    """Proposals for the bowl; a POST takes the ticked parts of one."""
    bowl = get_object_or_404(Bowl, pk=pk)
    assert isinstance(request.user, User)
    if request.method == "POST":
        _take(bowl, request.POST.dict(), request.POST.getlist("take"))
        return answer(request, bowl)
    context = _context(request, bowl)
    if request.htmx:  # type: ignore[attr-defined]
        return render(request, "bowls/_balance.html", context)
    return render(request, "bowls/page.html", page_context(request, bowl) | context)
