"""A bowl built on the scale: its parts weighed one after the other, the strip and the round with
what lies on it now."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from django.conf import settings
from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.utils import timezone
from django.views.decorators.http import require_POST

from bowls.bowl import Part, Reckoned, reckon_bowl, reckon_rows, rows_of
from bowls.models import Bowl, BowlPart
from bowls.page import PAGES, client_of, judged_meal
from clients.pages.context import PageRequest
from clients.plan.cautions import of_foods
from clients.plan.in_force import plan_of
from clients.plan.standing import asked_first, for_the_household
from clients.plan.strip import strip_context
from kitchen.models import BowlWeighing
from nutrition.insight import indices
from nutrition.prep.on_the_scale import Taken
from nutrition.written.basis import basis_range
from practice.undo import asked_by
from practice.versioned import StaleSave
from webkit.drawing.dishes import dish_round
from webkit.request_values import key_in, number_in

RIM = "protein_g"
LEAST_G, MOST_G = 0.0, 5000.0


@dataclass(frozen=True, kw_only=True)
class PartShown:
    """A part of the bowl while it is built."""

    part: Part
    planned: float
    taken: float | None
    now: bool

    @property
    def difference(self) -> Taken | None:
        if self.taken is None:
            return None
        return Taken(name=self.part.name, planned_g=self.planned, taken_g=self.taken)


def weighing_of(request: PageRequest, bowl: Bowl, begin: bool = False) -> BowlWeighing | None:
    """The weighing that is going on; begun with what is planned now where none is."""
    rows = BowlWeighing.objects.filter(bowl=bowl, client=client_of(request, bowl), ended=None)
    row: BowlWeighing | None = rows.first()
    if row is None and begin:
        reckoned = reckon_bowl(bowl)
        row = BowlWeighing.objects.create(
            bowl=bowl,
            client=client_of(request, bowl),
            planned={str(part.pk): part.row.grams for part in reckoned.parts},
            names={str(part.pk): part.name for part in reckoned.parts},
            by=request.user,
        )
    return row


def _grams(data: object, key: int) -> float | None:
    value = data.get(str(key)) if isinstance(data, dict) else None
    return float(value) if isinstance(value, int | float) else None


def _context(
    request: PageRequest, bowl: Bowl, part: int | None = None, grams: float | None = None
) -> dict[str, Any]:
    """What the page shows; of `part` so much lies on the scale now. [g]"""
    row = weighing_of(request, bowl)
    taken: dict[str, Any] = row.taken if row else {}
    rows = rows_of(bowl)
    chosen = next((one for one in rows if one.pk == part), None)
    if chosen is None:
        chosen = next((one for one in rows if str(one.pk) not in taken), None)
    elif grams is not None:
        chosen.grams, chosen.basis = max(grams, 0.0), "weighed"
        chosen.low_g, chosen.high_g = basis_range(chosen.grams, "weighed")
    reckoned = reckon_rows(bowl, rows)
    client = client_of(request, bowl)
    plan = plan_of(client)
    meal, _words = judged_meal(bowl, plan, client)
    shown = [_shown(one, row, taken, chosen) for one in reckoned.parts]
    return {
        "bowl": bowl,
        "client": client,
        "reckoned": reckoned,
        "parts": shown,
        "chosen": next((one for one in shown if one.now), None),
        "weighing": row,
        "last": _last_difference(shown, row),
        "round": dish_round(reckoned.dish, RIM, bowl.vessel_ml),
        "density": indices.kcal_per_gram(reckoned.profile),
        "ports": {"kitchen": settings.SCALE_PORT},
        "done": bool(taken) and all(one.taken is not None for one in shown),
        "ask_household": _asks(request, bowl, reckoned),
    } | strip_context(request, plan, reckoned.profile, client, "This bowl", meal)


def _asks(request: PageRequest, bowl: Bowl, reckoned: Reckoned) -> str:
    client = client_of(request, bowl)
    told = of_foods(plan_of(client), reckoned.ingredients, lines=reckoned.unread)
    return for_the_household(request.practice, asked_first(client, told))


def _shown(
    part: Part, row: BowlWeighing | None, taken: dict[str, Any], chosen: BowlPart | None
) -> PartShown:
    planned = _grams(row.planned, part.pk) if row else None
    return PartShown(
        part=part,
        planned=part.row.grams if planned is None else planned,
        taken=_grams(taken, part.pk),
        now=chosen is not None and chosen.pk == part.pk,
    )


def _last_difference(shown: list[PartShown], row: BowlWeighing | None) -> Taken | None:
    """What was taken last, where it differs from the plan."""
    if row is None or not row.taken:
        return None
    last = list(row.taken)[-1]
    one = next((one for one in shown if str(one.part.pk) == last), None)
    found = one.difference if one else None
    return found if found is not None and found.differs else None


def bowl(request: PageRequest, pk: int) -> HttpResponse:
    row, elsewhere = PAGES.opened(request, pk)
    if elsewhere:
        return elsewhere
    part = key_in(request.GET.get("part", ""))
    earlier = BowlWeighing.objects.filter(bowl=row, client=client_of(request, row)).exclude(
        ended=None
    )
    context = _context(request, row, part) | {"earlier": [_told(one) for one in earlier[:5]]}
    return render(request, "kitchen/bowl_scale.html", context)


def _told(row: BowlWeighing) -> dict[str, Any]:
    """An earlier weighing: when, and what differed."""
    found = []
    for key, grams in row.taken.items():
        planned = row.planned.get(key)
        if isinstance(planned, int | float):
            one = Taken(name=row.names.get(key, "a part"), planned_g=planned, taken_g=grams)
            found += [one] if one.differs else []
    return {"row": row, "differences": found}


@require_POST
def live(request: PageRequest, pk: int) -> HttpResponse:
    """The strip and the round with what lies on the scale now; nothing is kept."""
    row, _elsewhere = PAGES.opened(request, pk)
    part = key_in(request.POST.get("part", ""))
    grams = number_in(request.POST.get("grams", ""), (-MOST_G, MOST_G))
    return render(request, "kitchen/_scale_live.html", _context(request, row, part, grams))


@require_POST
def take(request: PageRequest, pk: int) -> HttpResponse:
    """What lies on the scale is what the bowl has of a part: weighed, in one step that can be
    undone."""
    row, _elsewhere = PAGES.opened(request, pk)
    part = key_in(request.POST.get("part", ""))
    grams = number_in(request.POST.get("grams", ""), (LEAST_G, MOST_G))
    there = row.parts.filter(pk=part or 0).first()
    if there is None or grams is None:
        words = (
            "That part is no longer in the bowl." if there is None else "A weight up to 5,000 g."
        )
        messages.error(request, words)
        return _answer(request, row, 400)
    weighing = weighing_of(request, row, begin=True)
    assert weighing is not None
    low, high = basis_range(grams, "weighed")
    try:
        with row.changing(*asked_by(request)) as changed:
            values = {"grams": grams, "low_g": low, "high_g": high, "basis": "weighed"}
            if grams > 0:
                changed.parts.filter(pk=there.pk).update(**values)
            else:
                changed.parts.filter(pk=there.pk).delete()
    except StaleSave as error:
        return PAGES.stale(request, error.current, f"{grams:.0f} g from the scale")
    taken = {key: value for key, value in weighing.taken.items() if key != str(there.pk)}
    weighing.taken = taken | {str(there.pk): grams}
    weighing.save()
    return _answer(request, PAGES.stored(pk))


def _answer(request: PageRequest, row: Bowl, status: int = 200) -> HttpResponse:
    if request.htmx:
        return render(request, "kitchen/_scale_work.html", _context(request, row))
    if status != 200:
        return render(request, "kitchen/bowl_scale.html", _context(request, row), status=status)
    return redirect("kitchen:bowl-scale", row.pk)


@require_POST
def rest(request: PageRequest, pk: int) -> HttpResponse:
    """What is in stays as it is; what is not yet in may be balanced anew."""
    row, _elsewhere = PAGES.opened(request, pk)
    weighing = weighing_of(request, row)
    if weighing is not None:
        inside = [int(key) for key in weighing.taken if key.isdigit()]
        free = list(row.parts.filter(pk__in=inside, locked=False).values_list("pk", flat=True))
        with row.changing(None, request.user) as changed:
            changed.parts.filter(pk__in=free).update(locked=True)
        weighing.locked = sorted({*weighing.locked, *free})
        weighing.save()
    return redirect("bowls:balance", pk)


@require_POST
def end(request: PageRequest, pk: int) -> HttpResponse:
    """The bowl is built: the difference to the plan is kept."""
    row, _elsewhere = PAGES.opened(request, pk)
    weighing = weighing_of(request, row)
    if weighing is not None:
        if weighing.locked:
            row.parts.filter(pk__in=weighing.locked).update(locked=False)
        weighing.ended = timezone.now()
        weighing.save()
        messages.success(request, "Built and weighed. What differed from the plan is kept with it.")
    return redirect("bowls:page", pk)
