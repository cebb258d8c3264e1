"""The forms that a package, a list of packages and an overruled value are copied into."""

from dataclasses import replace
from typing import Any

from django import forms

from nutrition.composition.food_names import food_names
from nutrition.composition.foods import Food, foods_in_force, shipped_foods
from nutrition.composition.nutrients import NUTRIENT, NUTRIENTS
from nutrition.composition.overrides import (
    MEASURE,
    MEASURE_SPREAD,
    CannotOverrule,
    Overruling,
    check,
    label_of,
    value_in,
)
from nutrition.formats.label_csv import UnreadableLabels, read_labels
from nutrition.labels.label import BadLabel, Label, read_label
from nutrition.labels.like_kind import fits
from nutrition.labels.printed_value import KIND_WORDS
from nutrition.labels.rounding import label_values
from nutrition.written.finding import find_foods
from nutrition.written.naming import name_food
from pantry.in_force import made_of
from pantry.models import COPIED, LONGEST, OwnFood
from webkit.request_values import number_in

MOST_VALUE = 24
OFFERED = 5
# What the words of a name that the table has already shall mean from now on.
PACKAGE, TABLE = "package", "table"


def likes_for(text: str) -> list[Food]:
    """The foods of the table that a name or a search comes nearest to, the likeliest first."""
    with foods_in_force(shipped_foods):
        return [match.food for match in find_foods(text, OFFERED)]


def surely_like(label: Label) -> bool:
    """Whether a package's name says by itself, and without a doubt, which food of the table it is
    like, and its printed values are those of such a food."""
    with foods_in_force(shipped_foods):
        named = name_food(label.name, food_names())
        if named.food is None or not named.sure:
            return False
        try:
            printed = read_label(label).per_100_g
        except BadLabel:
            return True
        return fits({key: one.amount for key, one in printed.items()}, named.food)


class OwnFoodForm(forms.Form):
    """One label. `instance` is what is edited; after `is_valid` it holds what was copied."""

    version = forms.IntegerField(widget=forms.HiddenInput, required=False)
    name = forms.CharField(label="What you call it", max_length=LONGEST["name"])
    like = forms.CharField(
        label="Most like",
        max_length=LONGEST["like"],
        required=False,
        help_text="Empty: as its name says.",
    )
    serving = forms.CharField(
        label="A serving is",
        max_length=LONGEST["serving"],
        required=False,
        widget=forms.TextInput(attrs={"placeholder": "2 tbsp"}),
    )
    serving_size = forms.CharField(
        label="It weighs",
        max_length=LONGEST["serving_size"],
        required=False,
        widget=forms.TextInput(attrs={"placeholder": "32 g"}),
    )
    servings = forms.CharField(
        label="Servings in it",
        max_length=LONGEST["servings"],
        required=False,
        widget=forms.TextInput(attrs={"placeholder": "about 14"}),
    )
    kind = forms.ChoiceField(label="The values are", choices=list(KIND_WORDS.items()), initial="us")
    ingredients = forms.CharField(
        label="Ingredients, with “contains” and “may contain”",
        max_length=LONGEST["ingredients"],
        required=False,
        widget=forms.Textarea(attrs={"rows": 3, "spellcheck": "false"}),
    )
    claims = forms.CharField(
        label="What its front claims, with commas between",
        max_length=LONGEST["claims"],
        required=False,
    )
    sure = forms.BooleanField(label="It is printed so", required=False)
    name_means = forms.ChoiceField(
        label="The name alone shall mean",
        choices=[(PACKAGE, "this package, here"), (TABLE, "the table's food, as before")],
        required=False,
        widget=forms.RadioSelect,
    )

    def __init__(self, data=None, instance: OwnFood | None = None, **kwargs):
        self.instance = instance or OwnFood(kind="us")
        super().__init__(data, initial=self._initial(), **kwargs)
        for key, row in label_values().items():
            nutrient = NUTRIENT[key]
            unit = "mg; salt: g" if key == "sodium_mg" else nutrient.unit
            self.fields[key] = forms.CharField(
                label=f"{nutrient.name} [{unit}]",
                max_length=MOST_VALUE,
                required=False,
                initial=self.instance.printed.get(key, ""),
                widget=forms.TextInput(attrs={"inputmode": "decimal"}),
            )
            self.fields[key].on_every_label = row.on_every_label  # type: ignore[attr-defined]
        for field in self.fields.values():
            field.widget.attrs["data-live"] = ""
        self.asks_for_name = False

    def _initial(self) -> dict[str, Any]:
        row = self.instance
        if row.pk is None:
            return {}
        initial: dict[str, Any] = {name: getattr(row, name) for name in COPIED}
        table = shipped_foods()
        known = row.like in table and row.like_sure
        initial["like"] = table[row.like].name if known else ""
        initial["name_means"] = PACKAGE if row.takes_name else TABLE
        return initial | {"version": row.version}

    def every_label(self) -> list[forms.BoundField]:
        return [self[key] for key, row in label_values().items() if row.on_every_label]

    def more(self) -> list[forms.BoundField]:
        return [self[key] for key, row in label_values().items() if not row.on_every_label]

    def more_is_said(self) -> bool:
        return any(field.value() or field.errors for field in self.more())

    def label(self) -> Label:
        """The label as it stands in the form right now, valid or not."""

        def said(name: str) -> str:
            return str(self.data.get(name, "")).strip()[: LONGEST.get(name, MOST_VALUE)]

        asked = said("like") or said("name")
        likes = likes_for(asked) if asked else []
        label = Label(
            name=said("name"),
            kind=said("kind") or "us",
            serving=said("serving"),
            serving_size=said("serving_size"),
            servings=said("servings"),
            printed={key: said(key) for key in label_values() if said(key)},
            ingredients=said("ingredients"),
            claims=said("claims"),
            like=likes[0].slug if likes else "",
            sure=bool(self.data.get("sure")),
        )
        return replace(label, like_sure=bool(said("like")) or surely_like(label))

    def clean(self):
        super().clean()
        if self.errors:
            return self.cleaned_data
        label = self.label()
        row = self.instance
        for name in COPIED:
            setattr(row, name, getattr(label, name))
        try:
            made_of(row.slug, label)
        except BadLabel as error:
            for name, why in error.errors.items():
                self.add_error(name if name in self.fields else None, why)
        self._check_name()
        return self.cleaned_data

    def _check_name(self) -> None:
        """A name is one food's; where the table has it too, somebody says what it means."""
        row, means = self.instance, self.cleaned_data.get("name_means")
        others = OwnFood.objects.filter(name__iexact=row.name, retired=None).exclude(pk=row.pk)
        if others.exists():
            self.add_error("name", "You have a package of that name already: add what differs.")
        with foods_in_force(shipped_foods):
            named = name_food(row.name, food_names())
        if named.sure and named.food is not None:
            self.asks_for_name = True
            if not means:
                self.add_error(
                    "name_means",
                    f"“{row.name}” is in the table already: {named.food.name}. What shall the "
                    "name alone mean in recipes?",
                )
        row.takes_name = means != TABLE


# No list of packages that is sent is larger. [bytes]
MOST_BYTES = 2_000_000


class ImportForm(forms.Form):
    text = forms.CharField(
        label="Pasted rows",
        required=False,
        max_length=1_000_000,
        strip=False,
        widget=forms.Textarea(attrs={"rows": 8, "spellcheck": "false"}),
    )
    file = forms.FileField(label="Or a CSV file", required=False)

    def clean(self):
        data = super().clean() or {}
        file, text = data.get("file"), data.get("text") or ""
        if file and text.strip():
            self.add_error("file", "There are rows and a file: take them in one after the other.")
            return data
        if file:
            if file.size > MOST_BYTES:
                self.add_error("file", "The file is over 2 MB: that is no list of packages.")
                return data
            try:
                text = file.read().decode("utf-8-sig")
            except UnicodeDecodeError:
                self.add_error("file", "The file is not text in UTF-8.")
                return data
        try:
            self.given = read_labels(text) if text.strip() else []
        except UnreadableLabels as error:
            self.add_error("file" if file else "text", f"Nothing was taken: {error}.")
            return data
        if not self.given:
            self.add_error("text", "Paste rows, or choose a file.")
        return data


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
