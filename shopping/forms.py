"""What is typed of a kitchen and a shop."""

from __future__ import annotations

from django import forms

from nutrition.composition.food_names import food_names
from nutrition.composition.foods import Food, food_table
from nutrition.written.naming import name_food
from nutrition.written.typed_amounts import UnreadableAmount, read_amount
from shopping.models import MOST_G, Package, Stock


def food_named(words: str) -> Food:
    """The food of some words. Raises ValidationError with what is near."""
    food = food_table().usable(words)
    if food is not None:
        return food
    named = name_food(words, food_names())
    if named.food is None:
        near = ", ".join(match.food.name for match in named.candidates[:3])
        raise forms.ValidationError(
            f"No food “{words}” is known{f': do you mean {near}?' if near else '.'}"
        )
    if named.food.comparator:
        raise forms.ValidationError(f"“{words}” is from an animal: it is no part of a week.")
    return named.food


class StockForm(forms.Form):
    food = forms.CharField(max_length=80)
    amount = forms.CharField(max_length=40)
    place = forms.ChoiceField(
        label="Where", choices=[("", "where it usually stands"), *Stock.PLACES], required=False
    )
    use_by = forms.DateField(
        label="Use by", required=False, widget=forms.DateInput(attrs={"type": "date"})
    )
    opened = forms.BooleanField(label="opened", required=False)
    system = "us"

    def clean_food(self):
        return food_named(self.cleaned_data["food"].strip())

    def clean(self):
        data = super().clean() or {}
        food, text = data.get("food"), data.get("amount")
        if food is not None and text:
            try:
                line = read_amount(text, food, self.system)
            except UnreadableAmount as error:
                self.add_error("amount", str(error))
                return data
            grams = line.grams or 0.0
            if not 0 < grams <= MOST_G:
                self.add_error("amount", f"Between nothing and {MOST_G / 1000:g} kg.")
            data["grams"] = grams
        return data


class PackageForm(forms.ModelForm):
    class Meta:
        model = Package
        fields = ["food", "unit", "grams", "price"]

    def clean_food(self):
        return food_named(self.cleaned_data["food"].strip()).slug

    def clean_unit(self):
        unit = self.cleaned_data["unit"].strip().lower()
        if not unit.replace(" ", "").isalpha():
            raise forms.ValidationError("A word such as bag, can, box or bunch.")
        return unit

    def validate_unique(self) -> None:
        """One for a food: entered again it takes the place of the one before."""
