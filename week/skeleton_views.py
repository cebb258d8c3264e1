"""A client's skeleton and favorites."""

from __future__ import annotations

from contextlib import suppress
from typing import Any

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST

from clients.models import Client
from clients.pages.context import PageRequest
from clients.plan.gate import gate_of
from clients.plan.in_force import plan_of
from nutrition.composition.dish_names import KINDS
from nutrition.planning.skeleton import as_data
from nutrition.planning.skeleton_words import AWAY
from practice.versioned import StaleSave, version_in
from recipes.ownership import open_to
from webkit.request_values import key_in, short
from week.dishes import things_of
from week.favorites import decide, eaten_gladly, move_up, of_kinds, search
from week.forms import TypedSkeleton, as_typed, read_skeleton, typed_in
from week.left_out import left_out, take_in
from week.models import Favorite, Week
from week.skeletons import keep, kept_version, skeleton_of, usual_for


def _asks_for_client(request: PageRequest) -> HttpResponse | None:
    if request.for_client is None:
        messages.error(request, "Choose a client first: a skeleton belongs to one.")
        return redirect("week:list")
    return None


def _page(
    request: PageRequest, typed: TypedSkeleton, status: int = 200, version: int | None = None
) -> HttpResponse:
    client = request.for_client
    assert client is not None
    others = Client.objects.filter(skeleton__isnull=False).exclude(pk=client.pk)
    context: dict[str, Any] = {
        "client": client,
        "typed": typed,
        "kinds": KINDS,
        "away": AWAY,
        "version": kept_version(client) if version is None else version,
        "own": kept_version(client) > 0,
        "others": others.order_by("name")[:50],
    }
    return render(request, "week/skeleton.html", context, status=status)


def skeleton(request: PageRequest) -> HttpResponse:
    """How the client's week usually is, meal by meal."""
    if elsewhere := _asks_for_client(request):
        return elsewhere
    client = request.for_client
    assert client is not None
    if request.method != "POST":
        return _page(request, as_typed(skeleton_of(client)))
    if "usual" in request.POST:
        return _page(request, as_typed(usual_for(client)))
    typed = typed_in(request.POST)
    # what was asked about before is not asked about again
    typed.means = {**skeleton_of(client).means, **typed.means}
    if "same" in request.POST:
        # Monday's meals on every day
        for (day, meal), _text in list(typed.cells.items()):
            typed.cells[day, meal] = typed.cells.get((0, meal), "")
        # how it is eaten goes with what is eaten
        for where in (typed.packed, typed.away):
            monday = {meal for day, meal in where if day == 0}
            where.clear()
            where.update((day, meal) for day in range(7) for meal in monday)
        return _page(request, typed)
    found = read_skeleton(typed)
    asked = version_in(request.POST.get("version"))
    if found is None:
        return _page(request, typed, 400, asked)
    try:
        keep(client, found, kept_version(client) if asked is None else asked)
    except StaleSave:
        typed.errors["stale"] = (
            "Somebody changed this skeleton after you opened it. What you typed is still here: "
            "save again to set it in place of theirs."
        )
        return _page(request, typed, 409)
    messages.success(request, "Saved. Weeks that are begun from now on have these meals.")
    week = key_in(request.GET.get("week", ""))
    row = Week.objects.filter(pk=week, client=client).first() if week else None
    if row is not None and "into" in request.POST:
        row.skeleton = as_data(found)
        row.save()
        return redirect("week:page", row.pk)
    return redirect("week:skeleton")


@require_POST
def copy(request: PageRequest) -> HttpResponse:
    """The skeleton of another client, to look at and save."""
    if elsewhere := _asks_for_client(request):
        return elsewhere
    other = get_object_or_404(Client, pk=key_in(request.POST.get("from", "")) or 0)
    messages.info(
        request,
        f"This is {other.name}'s skeleton. Change what is different, and save it to make it this "
        f"client's.",
    )
    return _page(request, as_typed(skeleton_of(other)))


def _favorites_context(request: PageRequest, client: Client) -> dict[str, Any]:
    plan, skeleton = plan_of(client), skeleton_of(client)
    gate, q = gate_of(plan), short(request.GET, "q")
    gladly, out = things_of(eaten_gladly(client), client), left_out(client, gate)
    return {
        "client": client,
        "q": q,
        "found": search(client, skeleton, plan, gate, q) if q else [],
        "of_kinds": [
            (one, out.get(one.kind, [])) for one in of_kinds(client, skeleton, plan, gate)
        ],
        "gladly": [one.name for one in gladly.values()],
        "refused": Favorite.objects.filter(client=client, verdict="refused").select_related(
            "recipe", "bowl"
        ),
    }


def favorites(request: PageRequest) -> HttpResponse:
    """What the client likes for each kind of slot, and a few more to try."""
    if elsewhere := _asks_for_client(request):
        return elsewhere
    client = request.for_client
    assert client is not None
    template = "week/_favorites.html" if request.htmx else "week/favorites.html"
    return render(request, template, _favorites_context(request, client))


def _let_in(request: PageRequest, client: Client, kind: str, pk: int | None) -> None:
    """A dish that was left out, with the change that lets it in."""
    recipe = open_to(client).filter(pk=pk).first() if pk is not None else None
    gate = gate_of(plan_of(client))
    said = ""
    if recipe and kind in KINDS:
        with suppress(StaleSave):
            said = take_in(recipe, kind, client, gate, request.user)
    if said:
        messages.success(request, said)
    else:
        messages.error(request, "That change can no longer be made: the dish was changed since.")


def _keep_all(request: PageRequest, client: Client, kind: str) -> None:
    """All that is proposed for a kind, or for every kind where none is named, kept at once."""
    plan = plan_of(client)
    kept = 0
    for one in of_kinds(client, skeleton_of(client), plan, gate_of(plan)):
        if kind in ("", one.kind):
            for thing in one.proposed[: one.most - len(one.kept)]:
                decide(client, one.kind, thing.key, "kept", request.user)
                kept += 1
    messages.success(request, f"Kept {kept} dish{'' if kept == 1 else 'es'}.")


@require_POST
def decided(request: PageRequest) -> HttpResponse:
    """Something kept, refused, moved up, or let go."""
    if elsewhere := _asks_for_client(request):
        return elsewhere
    client, data = request.for_client, request.POST
    assert client is not None
    row = None
    if (pk := key_in(data.get("row", ""))) is not None:
        row = Favorite.objects.filter(pk=pk, client=client).first()
    if "up" in data and row is not None:
        move_up(row)
    elif ("back" in data or "drop" in data) and row is not None:
        row.delete()
    elif "let_in" in data:
        _let_in(request, client, short(data, "kind", 20), key_in(data["let_in"]))
    elif "keep_all" in data:
        _keep_all(request, client, short(data, "kind", 20))
    elif "refuse" in data and row is not None:
        row.verdict = "refused"
        row.save()
    else:
        verdict = "refused" if "refuse" in data else "kept"
        kind, key = short(data, "kind", 20), short(data, "key", 100)
        if decide(client, kind, key, verdict, request.user) is None:
            messages.error(request, "That dish is no longer there.")
    if request.htmx:
        return render(request, "week/_favorites.html", _favorites_context(request, client))
    return redirect(f"{reverse('week:favorites')}#kind-{short(data, 'kind', 20)}")
