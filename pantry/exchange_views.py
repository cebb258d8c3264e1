"""Packages in and out as CSV."""

from django.contrib import messages
from django.db import transaction
from django.http import HttpResponse
from django.shortcuts import redirect, render

from clients.pages.context import PageRequest
from nutrition.composition.foods import shipped_foods
from nutrition.formats.label_csv import Given, labels_to_csv
from nutrition.labels.label import BadLabel
from pantry import keeping
from pantry.forms import ImportForm, likes_for, surely_like
from pantry.models import COPIED, LONGEST, OwnFood
from practice.models import User

# What is wrong in a file: the line, the package, why.
Wrong = tuple[int, str, str]


def export(request: PageRequest) -> HttpResponse:
    text = labels_to_csv(row.label() for row in OwnFood.objects.filter(retired=None))
    return HttpResponse(
        text,
        content_type="text/csv; charset=utf-8",
        headers={"Content-Disposition": 'attachment; filename="packages.csv"'},
    )


def take_in(request: PageRequest) -> HttpResponse:
    """All rows or none: what is wrong is said by line, and what was pasted stays."""
    form = ImportForm(request.POST or None, request.FILES or None)
    wrong: list[Wrong] = []
    if request.method == "POST" and form.is_valid():
        new, changed, wrong = store_all(request, form.given)
        if not wrong:
            messages.success(request, f"{new} packages are new, {changed} changed.")
            return redirect("pantry:own-list")
    context = {"form": form, "wrong": wrong}
    status = 400 if wrong or form.errors else 200
    return render(request, "pantry/own_import.html", context, status=status)


class _Refused(Exception):
    """Undoes what was stored of a file with a row that cannot be."""


def store_all(request: PageRequest, given: list[Given]) -> tuple[int, int, list[Wrong]]:
    """Store every row; how many are new and how many changed, or, storing none, what is wrong as
    (line, name, why). A package of the same name gets a new version."""
    new = changed = 0
    wrong: list[Wrong] = []
    seen: set[str] = set()
    try:
        with transaction.atomic():
            for one in given:
                name = one.label.name.lower()
                if name in seen:
                    wrong.append((one.line, one.label.name, "it stands in the file twice"))
                    continue
                seen.add(name)
                try:
                    state = _store(request, one, request.user)
                except BadLabel as error:
                    for field, why in error.errors.items():
                        wrong.append((one.line, one.label.name, f"{field}: {why}"))
                    continue
                new, changed = new + (state == "new"), changed + (state == "changed")
            if wrong:
                raise _Refused
    except _Refused:
        return 0, 0, wrong
    return new, changed, []


def _store(request: PageRequest, one: Given, by: User) -> str:
    label = one.label
    for name, most in LONGEST.items():
        if len(getattr(label, name)) > most:
            raise BadLabel({name: f"It is longer than {most} characters."})
    row = OwnFood.objects.filter(name__iexact=label.name, retired=None).first()
    state = "changed" if row else "new"
    row = row or OwnFood(practice=request.practice)
    before = row.copied()
    for name in COPIED:
        setattr(row, name, getattr(label, name))
    if row.like not in shipped_foods():
        likes = likes_for(label.like or label.name)
        row.like = likes[0].slug if likes else ""
        row.like_sure = bool(label.like) or surely_like(label)
    if row.pk and before == row.copied():
        return ""
    keeping.store(row, by)
    return state
