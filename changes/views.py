"""Balance and swaps beside the page of what is changed: looked at, and one of them taken. The same
for everything that can be changed."""

from typing import Any

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import render
from django.utils.text import capfirst
from django.views.decorators.http import require_POST

from changes.changeable import Changeable, Look, of_kind
from changes.held import held
from changes.offers import LEFT_OUT_G, Edit, Outdated, taken
from changes.proposed import found, in_the_way_of, problem_of, strip_after, ticked
from changes.swaps import panel, portions_after
from clients.pages.context import PageRequest
from nutrition.composition.profile import Profile
from nutrition.portions.problem import BadProblem
from practice.versioned import StaleSave, version_in

OUTDATED = "It was changed since this was proposed: balance it again."


def _base(it: Changeable) -> dict[str, Any]:
    return {
        "client": it.client,
        "version": it.record.version,
        "new_version": it.makes_version,
        "kind": it.kind,
        it.kind: it.record,
    }


def _looked(it: Changeable, swaps: bool) -> tuple[Look | None, dict[str, Any]]:
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


def balance(request: PageRequest, pk: int, kind: str) -> HttpResponse:
    """Proposals for what is looked at; a POST takes the ticked portions of one."""
    it, elsewhere = of_kind(kind).opened(request, pk)
    if elsewhere:
        return elsewhere
    if request.method == "POST":
        return _take_portions(it)
    return proposed(it)


def proposed(it: Changeable, wrong: dict[str, Any] | None = None) -> HttpResponse:
    """What is proposed, with what was `wrong` of a limit that was typed beside it."""
    request = it.request
    look, context = _looked(it, swaps=False)
    context["wrong"] = wrong
    later = "in_the_way" in request.GET
    if look is not None:
        context["settle_first"] = any(
            one.inside and one.limit.stops and not one.item.locked for one in context["held"]
        )
        try:
            problem = problem_of(it, look)
            if context["settle_first"]:
                pass
            elif later:
                context |= in_the_way_of(problem)
            else:
                context |= found(it, look, problem)
                context |= it.pictures(look, context["portions"])
        except BadProblem as error:
            context["problem"] = str(error)
    if request.htmx:
        template = "changes/_in_the_way.html" if later else "changes/_balance.html"
        return render(request, template, context)
    return it.page(context)


def _take_portions(it: Changeable) -> HttpResponse:
    asked = it.request.POST
    edits = [
        Edit(key=key, grams=grams if grams >= LEFT_OUT_G else 0.0)
        for key, grams in ticked(asked).items()
        if key in it.known()
    ]
    try:
        if edits:
            it.write(edits, "", it.request.GET, version_in(asked.get("version")) or 0)
    except (Outdated, StaleSave):
        messages.error(it.request, OUTDATED)
    return it.answer()


def swap(request: PageRequest, pk: int, kind: str) -> HttpResponse:
    """The changes that close the gap; a POST takes the one that was offered."""
    it, elsewhere = of_kind(kind).opened(request, pk)
    if elsewhere:
        return elsewhere
    if request.method == "POST":
        try:
            token = request.POST.get("change", "")
            edits, why = taken(token, it.key, it.record.version)
            said = it.write(edits, why, request.GET, it.record.version)
            messages.success(request, f"{capfirst(said)}.")
        except (Outdated, StaleSave) as error:
            messages.error(request, str(error))
        return it.answer()
    look, context = _looked(it, swaps=True)
    if look is not None and "show" in request.GET:
        return _outlined(it, look, request.GET["show"])
    if look is not None:
        context |= panel(it, look)
        if not it.makes_version:
            context |= it.outline(look, look.portions)
    if request.htmx:
        return render(request, "changes/_swap_panel.html", context)
    return it.page(context)


def _outlined(it: Changeable, look: Look, token: str) -> HttpResponse:
    """What a swap would do, drawn over what is there: on the round and in the strip."""
    try:
        edits, _why = taken(token, it.key, it.record.version)
        portions = portions_after(it, look, edits)
    except Outdated:
        # a look that comes after a change was taken has nothing to draw; who takes it is told
        return HttpResponse(status=204)
    context = strip_after(it, look, Profile.total(one.profile for one in portions))
    context |= it.outline(look, portions) | {"draggable": it.kind == "bowl"}
    return render(it.request, "changes/_outlined.html", context)


@require_POST
def without(request: PageRequest, pk: int, kind: str) -> HttpResponse:
    """A recipe in it made again without what this client must not have, as theirs, in its place."""
    it, elsewhere = of_kind(kind).opened(request, pk)
    if elsewhere:
        return elsewhere
    try:
        messages.success(request, it.remake(request.POST.get("item", "")))
    except Outdated as error:
        messages.error(request, str(error))
    except StaleSave as error:
        return it.stale(error.current, "what was to be made without it")
    return it.answer()
