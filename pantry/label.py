"""The label's serving is not mine: what an amount of a package really brings."""

from django import forms
from django.http import HttpResponse
from django.shortcuts import render

from clients.context import PageRequest
from nutrition.composition.nutrients import NUTRIENT
from nutrition.insight.package_label import KEYS_ON_LABELS, portion_of_package
from nutrition.written.plain import number

MOST = 10_000


class LabelForm(forms.Form):
    servings = forms.FloatField(label="Servings in the package", min_value=0.1, max_value=1000)
    serving_g = forms.FloatField(
        label="Serving size [g]", min_value=0.1, max_value=MOST, required=False
    )
    amount = forms.CharField(
        label="What is eaten: grams, or a part of the package", max_length=20, initial="1/2"
    )

    def __init__(self, *args, **kwargs):
        super().__init__(*args, **kwargs)
        for key in KEYS_ON_LABELS:
            label = f"{NUTRIENT[key].name} [{NUTRIENT[key].unit}]"
            self.fields[key] = forms.FloatField(
                label=label, min_value=0, max_value=MOST, required=False
            )

    def clean(self):
        super().clean()
        data = self.cleaned_data
        text = (data.get("amount") or "").strip().replace(",", ".")
        if self.errors:
            return data
        try:
            if text.lower().endswith("g"):
                if not data.get("serving_g"):
                    self.add_error("serving_g", "Grams of a package need its serving size.")
                    return data
                self.share = number(text[:-1].strip()) / (data["serving_g"] * data["servings"])
            else:
                self.share = number(text)
        except ValueError:
            self.share = 0.0
        if not 0 < self.share <= 50:
            self.add_error(
                "amount", "Write grams such as 80 g, or a part of the package such as 1/2 or 2."
            )
        if not any(data.get(key) is not None for key in KEYS_ON_LABELS):
            self.add_error("energy_kcal", "Copy at least one value from the label.")
        return data


def label(request: PageRequest) -> HttpResponse:
    form = LabelForm(request.GET if "servings" in request.GET else None)
    rows = []
    if form.is_valid():
        data = form.cleaned_data
        printed = {key: data[key] for key in KEYS_ON_LABELS if data.get(key) is not None}
        eaten, whole = (
            portion_of_package(printed, data["servings"], share) for share in (form.share, 1.0)
        )
        rows = [(NUTRIENT[key], printed[key], eaten[key], whole[key]) for key in printed]
    return render(request, "pantry/label.html", {"form": form, "rows": rows})
