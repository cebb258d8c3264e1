"""How small and how large a proposal may make a part: set beside the proposals, which are made anew
with it."""

from django.contrib import messages
from django.http import HttpResponse, QueryDict
from django.shortcuts import redirect
from django.urls import reverse
from django.views.decorators.http import require_POST
from django_htmx.http import retarget

from bowls.changeable import BowlChanges
from bowls.page import PAGES
from changes.panel import proposed
from clients.pages.context import PageRequest
from nutrition.written.typed_amounts import MAX_GRAMS
from practice.undo import asked_by
from practice.versioned import StaleSave
from webkit.request_values import grams_in, short

FIELDS = ("least_g", "most_g")


@require_POST
def limits(request: PageRequest, pk: int, part: int) -> HttpResponse:
    """Set the least and the most of one part; what is wrong stands beside them as it was typed."""
    bowl, _elsewhere = PAGES.opened(request, pk)
    row = bowl.parts.filter(pk=part).first()
    if row is None:
        messages.error(request, "That part is no longer in the bowl: somebody took it out.")
        return retarget(PAGES.answer(request, bowl, status=409), "#work")
    values, problem = read(request.POST)
    if not problem and values != {name: getattr(row, name) for name in FIELDS}:
        try:
            with bowl.changing(*asked_by(request)) as bowl:
                bowl.parts.filter(pk=part).update(**values)
        except StaleSave as error:
            return retarget(PAGES.stale(request, error.current, "other limits of a part"), "#work")
    typed = {name: short(request.POST, name, 40) for name in FIELDS}
    if request.htmx:
        it = BowlChanges(request, PAGES.stored(pk))
        return proposed(it, {"part": part, "problem": problem, **typed} if problem else None)
    if problem:
        return PAGES.answer(request, bowl, 400, errors={part: (f"{row.grams:g} g", problem)})
    query = request.GET.urlencode()
    return redirect(f"{reverse('bowls:balance', args=[pk])}{f'?{query}' if query else ''}")


def read(data: QueryDict) -> tuple[dict[str, float | None], str]:
    """The least and the most that a proposal may make of a part [g], None for the usual; and what
    is wrong with them."""
    values: dict[str, float | None] = {}
    for name in FIELDS:
        typed = short(data, name, 40)
        values[name] = grams_in(typed) if typed else None
        if typed and values[name] is None:
            return {}, f"“{typed}” is not a weight in grams."
    least, most = values["least_g"], values["most_g"]
    if any(value is not None and not 0 <= value <= MAX_GRAMS for value in (least, most)) or (
        least or 0
    ) > (MAX_GRAMS if most is None else most):
        return {}, "The least must be zero or more, and not over the most."
    return values, ""
