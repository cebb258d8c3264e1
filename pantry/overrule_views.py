"""A wrong or thin row is overruled by the practice, with a reason; the table's value comes back
when that is ended."""

from django import forms
from django.contrib import messages
from django.http import Http404, HttpResponse
from django.shortcuts import get_object_or_404, redirect
from django.views.decorators.http import require_POST

from clients.pages.context import PageRequest
from nutrition.composition.foods import Food
from nutrition.composition.nutrients import NUTRIENTS
from nutrition.composition.overruled import (
    MEASURE,
    MEASURE_SPREAD,
    CannotOverrule,
    Overruling,
    check,
    label_of,
    value_in,
)
from pantry import keeping
from pantry.models import Overrule
from webkit.asked import number_in

MEASURES = ("cup", "tbsp", "tsp", "medium", "piece", "slice")


class OverruleForm(forms.Form):
    """What is put in place of a row's value, and why."""

    key = forms.ChoiceField(label="What")
    value = forms.CharField(label="In its place", max_length=20)
    low = forms.CharField(label="At least", max_length=20, required=False)
    high = forms.CharField(label="At most", max_length=20, required=False)
    reason = forms.CharField(label="Why, and from where", max_length=300)

    def __init__(self, *args, food: Food, **kwargs):
        super().__init__(*args, **kwargs)
        keys = [one.key for one in NUTRIENTS] + [f"{MEASURE}{name}" for name in MEASURES]
        self.fields["key"].choices = [(key, _with_value(food, key)) for key in keys]  # type: ignore[attr-defined]

    def clean(self):
        data = super().clean() or {}
        if self.errors:
            return data
        key = data["key"]
        value = number_in(data["value"])
        if value is None:
            self.add_error("value", "Write a number.")
            return data
        spread = value * MEASURE_SPREAD if key.startswith(MEASURE) else 0.0
        ends = {"low": value - spread, "high": value + spread}
        for name in ends:
            if data.get(name):
                typed = number_in(data[name])
                if typed is None:
                    self.add_error(name, "Write a number, or leave it empty.")
                    return data
                ends[name] = typed
        try:
            check(key, value, ends["low"], ends["high"])
        except CannotOverrule as error:
            self.add_error("value", str(error))
            return data
        self.row = Overruling(
            key=key, value=value, low=ends["low"], high=ends["high"], said=data["reason"]
        )
        return data


def _with_value(food: Food, key: str) -> str:
    value = value_in(food, key)
    return f"{label_of(key)}: {'unknown' if value is None else f'{value:.4g}'}"


@require_POST
def end(request: PageRequest, pk: int) -> HttpResponse:
    row = get_object_or_404(Overrule, pk=pk, ended=None)
    keeping.end(row, request.user)
    messages.success(request, "The table's value holds again.")
    return redirect("pantry:food", row.food)


def taken(request: PageRequest, food: Food) -> OverruleForm | None:
    """Take what was sent, if it can be; the form with what stands against it if not."""
    if food.own:
        raise Http404("a package of your own is edited")
    form = OverruleForm(request.POST, food=food)
    if not form.is_valid():
        return form
    keeping.overrule(request.practice, food, form.row, request.user)
    messages.success(request, f"{food.name} is reckoned with your value from now on.")
    return None
