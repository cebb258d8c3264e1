"""Balance and swaps beside the page of what is changed: looked at, and one of them taken. The same
for everything that can be changed."""

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import render
from django.utils.text import capfirst
from django.views.decorators.http import require_POST

from changes.changeable import Changeable, Look, of_kind
from changes.offers import Outdated, taken
from changes.panel import looked_at, proposed
from changes.proposals import less_ticked, strip_after, ticked
from changes.swaps import panel, portions_after
from clients.pages.context import PageRequest
from nutrition.composition.profile import Profile
from practice.versioned import StaleSave, version_in

OUTDATED = "It was changed since this was proposed: balance it again."


def balance(request: PageRequest, pk: int, kind: str) -> HttpResponse:
    """Proposals for what is looked at; a POST takes the ticked portions of one."""
    it, elsewhere = of_kind(kind).opened(request, pk)
    if elsewhere:
        return elsewhere
    if request.method == "POST":
        return _take_portions(it)
    return proposed(it)


def _take_portions(it: Changeable) -> HttpResponse:
    """The portions that were ticked, what is added, and less of a line in a dish."""
    asked = it.request.POST
    edits, less = ticked(asked, it.known()), less_ticked(asked)
    version = version_in(asked.get("version")) or 0
    try:
        if less is not None:
            messages.success(it.request, it.lessen(*less))
            it, _elsewhere = type(it).opened(it.request, it.record.pk)
            version = it.record.version
        if edits:
            it.write(edits, "", asked, version)
    except StaleSave:
        messages.error(it.request, OUTDATED)
    except Outdated as error:
        messages.error(it.request, str(error) if less is not None else OUTDATED)
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
    look, context = looked_at(it, swaps=True)
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
