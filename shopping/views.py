"""A week's shopping list, the kitchen's stock, and how the shop sells."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.http import HttpResponse, JsonResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils.dateformat import format as dated
from django.views.decorators.http import require_POST

from clients.pages.context import PageRequest
from clients.plan.standing import for_the_household
from nutrition.composition.foods import food_table
from nutrition.formats.csv_cells import SafeWriter
from paper.sheets import Paper, answer
from shopping.forms import PackageForm
from shopping.kitchen import cooked, tick
from shopping.lists import list_of
from shopping.models import Package
from webkit.request_values import key_in, short
from week.cautions import asked_of
from week.models import Week
from week.page import PAGES

# Where the script stands that a phone keeps the list by.
STATIC = Path(__file__).resolve().parent / "worker"


def _context(request: PageRequest, week: Week) -> dict[str, Any]:
    found = list_of(week)
    cost = found.whole.cost
    return {
        "week": week,
        "client": week.client,
        "found": found,
        "cost": cost,
        "per_serving": cost / found.servings if cost and found.servings else None,
        "nothing": not found.trips,
        "ask_household": for_the_household(request.practice, asked_of(found.reckoned)),
    }


def page(request: PageRequest, pk: int) -> HttpResponse:
    week, elsewhere = PAGES.opened(request, pk)
    if elsewhere:
        return elsewhere
    return render(request, "shopping/page.html", _context(request, week))


def paper(request: PageRequest, pk: int) -> HttpResponse:
    week, elsewhere = PAGES.opened(request, pk)
    return elsewhere or answer(request, list_paper(request, week))


def list_paper(request: PageRequest, week: Week) -> Paper:
    """The list by the sections of the shop, with a box before every line."""
    return Paper(
        title=f"Shopping for the week of {dated(week.start, 'F j')}",
        template="shopping/paper.html",
        context=_context(request, week),
        back=(reverse("shopping:page", args=[week.pk]), "Back to the list"),
        whom=f"for {week.client.name}",
        kind="shopping-paper",
    )


@require_POST
def ticked(request: PageRequest, pk: int) -> HttpResponse:
    """A line ticked off or back: from the page, or sent later by a phone that was out of reach."""
    week, _elsewhere = PAGES.opened(request, pk)
    key, on = short(request.POST, "key", 100), request.POST.get("on") == "1"
    found = list_of(week)
    line = next(
        (
            line
            for trip in found.trips
            for _name, lines in trip.sections
            for line in lines
            if line.key == key
        ),
        None,
    )
    tick(week, line, key, on, request.user)
    if request.headers.get("Accept") == "application/json":
        return JsonResponse({"key": key, "on": on, "known": line is not None})
    if request.htmx:
        return render(request, "shopping/_list.html", _context(request, week))
    return redirect("shopping:page", pk)


@require_POST
def pot(request: PageRequest, pk: int) -> HttpResponse:
    """A pot was cooked, or was not."""
    week, _elsewhere = PAGES.opened(request, pk)
    key, on = short(request.POST, "key", 60), request.POST.get("on") == "1"
    found = list_of(week)
    one = next((one for one in found.reckoned.pots if one.key == key), None)
    cooked(week, one, key, on, request.user)
    return redirect("shopping:page", pk)


def as_csv(request: PageRequest, pk: int) -> HttpResponse:
    """The list as CSV."""
    week, elsewhere = PAGES.opened(request, pk)
    if elsewhere:
        return elsewhere
    found = list_of(week)
    response = HttpResponse(content_type="text/csv; charset=utf-8")
    name = f"shopping-{week.start:%Y-%m-%d}.csv"
    response["Content-Disposition"] = f'attachment; filename="{name}"'
    writer = SafeWriter(response)
    writer.writerow(
        ["shop on", "section", "food", "buy", "grams needed", "grams at hand", "left over", "for"]
        + ["cost"]
    )
    for trip in found.trips:
        for section, lines in trip.sections:
            for line in lines:
                item = line.item
                writer.writerow(
                    [
                        trip.date.isoformat(),
                        section,
                        item.food.name,
                        line.words,
                        f"{item.need_g:.0f}",
                        f"{item.have_g:.0f}",
                        item.left_words,
                        "; ".join(item.dishes),
                        "" if item.cost is None else f"{item.cost:.2f}",
                    ]
                )
    return response


def _stock_rows(rows: Any) -> list[dict[str, Any]]:
    return [{"row": row, "food": food_table().get(row.food)} for row in rows]


def packages(request: PageRequest) -> HttpResponse:
    """How the practice's shop sells: units, sizes, prices."""
    form, status = PackageForm(initial={"food": short(request.GET, "food", 80)}), 200
    if request.method == "POST":
        row = key_in(request.POST.get("row", ""))
        if row is not None:
            get_object_or_404(Package, pk=row).delete()
            return redirect("shopping:packages")
        form = PackageForm(request.POST)
        if form.is_valid():
            data = form.cleaned_data
            Package.objects.update_or_create(
                practice=request.practice,
                food=data["food"],
                defaults={name: data[name] for name in ("unit", "grams", "price")},
            )
            return redirect("shopping:packages")
        status = 400
    rows = _stock_rows(Package.objects.all())
    return render(request, "shopping/packages.html", {"rows": rows, "form": form}, status=status)


def worker(_request: PageRequest) -> HttpResponse:
    """The script that keeps a list on a phone for the visit to the shop."""
    response = HttpResponse(content_type="text/javascript; charset=utf-8")
    response["Service-Worker-Allowed"] = "/"
    response["Cache-Control"] = "no-cache"
    response.write((STATIC / "shop-worker.js").read_text(encoding="utf-8"))
    return response
