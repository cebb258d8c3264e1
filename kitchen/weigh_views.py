"""What came out of a session: pots weighed, divided, labelled; a mix checked against its pieces."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils import timezone
from django.utils.dateformat import format as dated
from django.views.decorators.http import require_POST

from clients.pages.context import PageRequest
from kitchen.forms import PiecesForm, PotForm
from kitchen.models import Box
from kitchen.opened import opened
from kitchen.page import asks_of
from kitchen.planning import planned_of
from kitchen.progress import learn_times
from kitchen.weighing import PotShown, learned_of, pots_shown
from kitchen.weighing import weigh as weigh_pot
from nutrition.prep.small_pieces import Pieces, pieces_of
from paper.labels import ContainerLabel, labels_paper
from paper.sheets import answer
from recipes.models import Recipe
from webkit import figures
from webkit.request_values import short


def _rows(shown: list[PotShown], typed: PotForm | None, key: str) -> list[dict[str, Any]]:
    out = []
    for one in shown:
        form = typed if typed is not None and key == one.dish.key else PotForm.of(one.measure)
        out.append({"pot": one, "form": form, "learned": learned_of(one.recipe)})
    return out


def _page(
    request: PageRequest, pk: int, typed: PotForm | None = None, key: str = "", status: int = 200
) -> HttpResponse:
    row, elsewhere = opened(request, pk)
    if elsewhere:
        return elsewhere
    planned = planned_of(row)
    context = {
        "session": row,
        "client": row.client,
        "rows": _rows(pots_shown(planned), typed, key),
        "ask_household": asks_of(request.practice, planned),
        "labels": Box.objects.filter(session=row).exists(),
    }
    return render(request, "kitchen/weigh.html", context, status=status)


def weigh(request: PageRequest, pk: int) -> HttpResponse:
    """The pots of a session, to be weighed; one of them weighed."""
    if request.method != "POST":
        return _page(request, pk)
    row, _elsewhere = opened(request, pk)
    key, form = short(request.POST, "dish", 20), PotForm(request.POST)
    shown = next((one for one in pots_shown(planned_of(row)) if one.dish.key == key), None)
    if shown is None:
        messages.error(request, "That dish is no longer in the session.")
        return redirect("kitchen:weigh", pk)
    if not form.is_valid():
        return _page(request, pk, form, key, 400)
    data = form.cleaned_data
    weigh_pot(row, shown, data["net"], data["servings"], request.user)
    if row.ended is None:
        row.ended = timezone.now()
        row.save()
    learn_times(row)
    return redirect(f"{reverse('kitchen:weigh', args=[pk])}#pot-{key}")


@require_POST
def learn(request: PageRequest, pk: int) -> HttpResponse:
    """The recipe takes what its pots weighed as the weight of its batch."""
    recipe: Recipe = get_object_or_404(Recipe.objects, pk=pk)
    found = learned_of(recipe)
    if found is None:
        messages.error(request, "Nothing of it was weighed yet.")
    else:
        recipe.batch_g = round(found.grams, 1)
        recipe.save()
        messages.success(
            request,
            f"{recipe.title} weighs {found.grams:.0f} g as written, by {found.count} "
            f"measured, in place of {found.reckoned_g:.0f} g.",
        )
    return redirect("recipes:page", pk)


def labels(request: PageRequest, pk: int) -> HttpResponse:
    """A label for each container that really came out."""
    row, elsewhere = opened(request, pk)
    if elsewhere:
        return elsewhere
    planned = planned_of(row)
    shown = pots_shown(planned)
    boxes = Box.objects.filter(session=row, gone="").select_related("recipe")
    light = row.client.numbers_hidden
    labelled = [_label(box, keeps_cold(box, shown), light) for box in boxes]
    paper = labels_paper(
        labelled,
        f"{len(labelled)} label{'' if len(labelled) == 1 else 's'} of what came out",
        back=(reverse("kitchen:weigh", args=[pk]), "Back to the weights"),
        note="" if labelled else "No pot was weighed and divided yet.",
        ask_household=asks_of(request.practice, planned),
    )
    return answer(request, paper)


def _label(box: Box, cold: bool, light: bool) -> ContainerLabel:
    by = dated(box.use_by, "M j" if box.place == "freezer" else "D, M j")
    weight = "" if light else figures.grams(box.grams)
    on = f"for {dated(box.eaten_on, 'l')}" if box.eaten_on else ""
    return ContainerLabel(
        dish=box.recipe.title,
        cooked=box.cooked,
        eat_by=f"Freezer, by {by}" if box.place == "freezer" else f"Eat by {by}",
        amount=", ".join(words for words in (weight, on) if words),
        serve="Good cold" if cold else "Reheat until it steams all through",
    )


def keeps_cold(box: Box, shown: list[PotShown]) -> bool:
    """Whether what is in a container is good cold."""
    return next((one.keeping.cold for one in shown if one.recipe.pk == box.recipe_id), True)


def pieces(request: PageRequest) -> HttpResponse:
    """A mix's weight over the pieces wanted, against what the recipe says."""
    found: Pieces | None = None
    form = PiecesForm(request.GET or None)
    if request.GET and form.is_valid():
        data = form.cleaned_data
        found = pieces_of(data["mix_g"], data["wanted"], data["said_g"])
    status = 400 if request.GET and found is None else 200
    return render(request, "kitchen/pieces.html", {"form": form, "found": found}, status=status)
