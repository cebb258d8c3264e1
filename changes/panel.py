"""The panel in which changes are proposed beside what is changed."""

from typing import Any

from django.http import HttpResponse
from django.shortcuts import render

from changes.changeable import Changeable, Look
from changes.gate_findings import held
from changes.proposals import MOST_GOAL, found, goal_of, in_the_way_of, problem_of
from nutrition.portions.problem import BadProblem
from nutrition.targets.goal_words import UnreadGoal
from webkit.request_values import short


def _base(it: Changeable) -> dict[str, Any]:
    return {
        "client": it.client,
        "version": it.record.version,
        "new_version": it.makes_version,
        "kind": it.kind,
        it.kind: it.record,
    }


def looked_at(it: Changeable, swaps: bool) -> tuple[Look | None, dict[str, Any]]:
    """What is looked at, if anything can be offered, and what every panel says of it."""
    context = _base(it) | {"swapped" if swaps else "balanced": True}
    if it.problem:
        return None, context | it.addresses(None) | {"problem": it.problem}
    look = it.look(it.request.GET, swaps)
    context |= it.addresses(look) | {
        "look": look,
        "meal": look.meal,
        "meal_options": look.options,
        "judged": look.chosen,
        "empty_words": look.words,
        "subject_words": it.swap_words if swaps else it.balance_words,
        "live": not it.makes_version,
    }
    weighing = [one for one in look.portions if one.profile.grams > 0]
    if not weighing or (swaps and all(one.locked for one in weighing)):
        return None, context | {"problem": it.nothing}
    if not it.makes_version:
        context["held"] = held(look.portions, it.gate, it.key, it.record.version, it.system)
        context["held_lesser"] = [
            one for one in context["held"] if one.item.locked or not one.limit.stops
        ]
    return look, context


def proposed(it: Changeable, wrong: dict[str, Any] | None = None) -> HttpResponse:
    """What is proposed, with what was `wrong` of a limit that was typed beside it."""
    request = it.request
    look, context = looked_at(it, swaps=False)
    context["wrong"] = wrong
    later = "in_the_way" in request.GET
    if look is not None:
        context["settle_first"] = any(
            one.inside and one.limit.stops and not one.item.locked for one in context["held"]
        )
        try:
            context["goal"] = short(request.GET, "goal", MOST_GOAL)
            problem = problem_of(it, look)
            context["goal_said"] = [one.words for one in goal_of(it)]
            if context["settle_first"]:
                pass
            elif later:
                context |= in_the_way_of(problem)
            else:
                context |= found(it, look, problem)
                context |= it.pictures(look, context["portions"])
        except UnreadGoal as error:
            context["goal_wrong"] = str(error)
        except BadProblem as error:
            context["problem"] = str(error)
    if request.htmx:
        template = "changes/_in_the_way.html" if later else "changes/_balance.html"
        return render(request, template, context)
    return it.page(context)
