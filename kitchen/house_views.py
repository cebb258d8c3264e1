"""What is in the house: put in, set right, opened, used first, thrown away."""

from __future__ import annotations

from typing import Any

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.utils import timezone
from django.views.decorators.http import require_POST

from clients.models import Client
from clients.pages.context import PageRequest
from kitchen import house as rooms
from kitchen.forms import BoxForm
from kitchen.models import Box
from nutrition.written.matching import reckon_line
from shopping.forms import StockForm
from shopping.models import Stock
from shopping.stock import add_to
from webkit.request_values import short

MOST_PASTED = 100


def _context(client: Client, form: StockForm | None = None, **more: Any) -> dict[str, Any]:
    today = timezone.localdate()
    return {
        "client": client,
        "stock": rooms.stock_shown(client),
        "containers": rooms.containers_there(client),
        "first": rooms.first_of(client, today),
        "waste": rooms.waste_of(client),
        "form": form or StockForm(),
        "box_form": BoxForm(client=client),
        "today": today,
    } | more


def house(request: PageRequest) -> HttpResponse:
    """All of it; a food put in by name and amount, or several pasted, a line each."""
    client = request.for_client
    if client is None:
        messages.error(request, "Choose a client first: a house is somebody's.")
        return redirect("kitchen:list")
    if request.method != "POST":
        return render(request, "kitchen/house.html", _context(client))
    if "pasted" in request.POST:
        return _pasted(request, client)
    form = StockForm(request.POST)
    form.system = request.practice.measures
    if not form.is_valid():
        return render(request, "kitchen/house.html", _context(client, form), status=400)
    data = form.cleaned_data
    add_to(client, data["food"].slug, data["grams"], data["place"])
    if data["use_by"] or data["opened"]:
        rows = Stock.objects.filter(client=client, food=data["food"].slug)
        row = rows.order_by("-updated").first()
        if row is not None:
            row.use_by = data["use_by"] or row.use_by
            row.opened = timezone.localdate() if data["opened"] else row.opened
            row.save()
    return redirect("kitchen:house")


def _pasted(request: PageRequest, client: Client) -> HttpResponse:
    """Lines such as "500 g kale": what is read for sure is put in, the rest stays to be mended."""
    text = str(request.POST.get("pasted", ""))
    lines = [line.strip() for line in text.splitlines() if line.strip()]
    if len(lines) > MOST_PASTED:
        return _refused(request, client, text, f"Up to {MOST_PASTED} lines at a time.")
    left = []
    for line in lines:
        found = reckon_line(line, system=request.practice.measures)
        if found.food is None or not found.grams or not found.sure or found.food.comparator:
            left.append(line)
            continue
        add_to(client, found.food.slug, found.grams)
    if left:
        put = len(lines) - len(left)
        words = f"{put} put in. These were not read for sure: say them more plainly, or one by one."
        return _refused(request, client, "\n".join(left), words)
    messages.success(request, f"{len(lines)} put in.")
    return redirect("kitchen:house")


def _refused(request: PageRequest, client: Client, text: str, words: str) -> HttpResponse:
    context = _context(client, pasted=text, pasted_error=words)
    return render(request, "kitchen/house.html", context, status=400)


@require_POST
def stock(request: PageRequest, pk: int) -> HttpResponse:
    """A food opened, moved, used up, or thrown away."""
    client = request.for_client
    row = Stock.objects.filter(pk=pk, client=client).first() if client else None
    if row is None:
        messages.error(request, "That is no longer in the house.")
        return redirect("kitchen:house")
    today = timezone.localdate()
    doing = short(request.POST, "do", 20)
    if doing == "opened":
        row.opened = None if row.opened else today
        row.save()
    elif doing == "thrown":
        rooms.throw_stock(row, today)
    elif doing == "gone":
        row.delete()
    elif doing in dict(Stock.PLACES):
        grams, food = row.grams, row.food
        row.delete()
        add_to(row.client, food, grams, doing)
    return redirect("kitchen:house")


@require_POST
def box(request: PageRequest, pk: int) -> HttpResponse:
    """A container eaten, thrown away, or moved between refrigerator and freezer."""
    client = request.for_client
    row = Box.objects.filter(pk=pk, client=client, gone="").first() if client else None
    if row is None:
        messages.error(request, "That container is no longer there.")
        return redirect("kitchen:house")
    doing = short(request.POST, "do", 20)
    if doing in dict(Box.GONE):
        rooms.box_gone(row, doing, timezone.localdate())
    elif doing in dict(Box.PLACES):
        row.place = doing
        row.save()
    return redirect("kitchen:house")


@require_POST
def new_box(request: PageRequest) -> HttpResponse:
    """A container that was cooked outside of a session."""
    client = request.for_client
    if client is None:
        return redirect("kitchen:list")
    form = BoxForm(request.POST, client=client)
    if not form.is_valid():
        context = _context(client) | {"box_form": form}
        return render(request, "kitchen/house.html", context, status=400)
    form.put_in()
    return redirect("kitchen:house")
