"""The form that a label is copied into."""

from dataclasses import replace
from typing import Any

from django import forms

from nutrition.composition.food_names import food_names
from nutrition.composition.foods import Food, foods_in_force, shipped_foods
from nutrition.composition.nutrients import NUTRIENT
from nutrition.labels.label import BadLabel, Label, read_label
from nutrition.labels.like_kind import fits
from nutrition.labels.printed import KIND_WORDS
from nutrition.labels.rounding import label_values
from nutrition.written.finding import find_foods
from nutrition.written.naming import name_food
from pantry.in_force import made_of
from pantry.models import COPIED, LONGEST, OwnFood

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
