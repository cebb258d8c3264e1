"""The forms of a recipe: written with what was decided line by line, taken in, scaled."""

from typing import Any

from django import forms
from django.db.models import Q

from nutrition.composition.foods import food_table
from nutrition.formats.recipe_files import read_recipe
from nutrition.formats.shared import Shared
from nutrition.recipe.model import (
    LINE_G,
    MAX_LINE_LENGTH,
    MAX_LINES,
    UnreadableRecipe,
    choice_keys,
    within,
)
from nutrition.written.serving_words import counted
from practice.forms import field_of
from recipes.models import Recipe
from webkit.request_values import grams_in


class RecipeForm(forms.ModelForm):
    version = forms.IntegerField(widget=forms.HiddenInput, required=False)
    why = forms.CharField(
        label="Save as a version, because",
        max_length=200,
        required=False,
        widget=forms.TextInput(attrs={"placeholder": "a third less miso: sodium"}),
    )

    class Meta:
        model = Recipe
        fields = [
            "title",
            "role",
            "text",
            "servings",
            "batch_g",
            "claims",
            "serving_measure",
            "cooked_by",
            "reduced",
            "measures",
            "method",
        ]
        widgets = {
            "text": forms.Textarea(
                attrs={"rows": 14, "spellcheck": "false", "autocomplete": "off", "data-live": ""}
            ),
            "claims": forms.TextInput(attrs={"placeholder": "4 to 6"}),
            "serving_measure": forms.TextInput(
                attrs={"placeholder": "5 x 1/2 cup heaping", "data-live": ""}
            ),
            "cooked_by": forms.Select(attrs={"data-live": ""}),
            "method": forms.Textarea(attrs={"rows": 8, "data-live": ""}),
            "servings": forms.NumberInput(attrs={"step": "any", "min": "0.1", "data-live": ""}),
            "batch_g": forms.NumberInput(attrs={"step": "any", "min": "1", "data-live": ""}),
        }

    def __init__(self, *args, **kwargs):
        super().__init__(*args, **kwargs)
        field_of(self, "cooked_by").choices = [
            ("", "not cooked"),
            *field_of(self, "cooked_by").choices[1:],
        ]
        # typed in percent, as it is said; the stored value is a share
        self.fields["reduced"] = forms.FloatField(
            label="Boiled away [%]",
            required=False,
            min_value=0,
            max_value=99,
            widget=forms.NumberInput(attrs={"step": "any", "data-live": ""}),
        )
        if self.instance.reduced is not None:
            self.initial["reduced"] = round(self.instance.reduced * 100, 4)
        self.fields["measures"].widget.attrs["data-live"] = ""
        self.fields["measures"].required = False
        if self.instance.pk:
            self.fields["version"].initial = self.instance.version
        for name in ("servings", "batch_g", "reduced"):
            value = self.initial.get(name)
            if value is not None and float(value).is_integer():
                self.initial[name] = int(value)

    def clean(self):
        super().clean()
        data = self.cleaned_data
        # how many came out stands over how many it was meant to give
        count, _one = counted(data.get("serving_measure") or "")
        if count is not None:
            data["servings"] = count
        self._check_title(data.get("title"))
        return data

    def _check_title(self, title: str | None) -> None:
        """A title is how other recipes name this one: two of them in one practice would be taken
        for each other."""
        same = Recipe.objects.filter(title__iexact=title or "").exclude(pk=self.instance.pk)
        unchanged = self.instance.pk and "title" not in self.changed_data
        if title and not unchanged and same.exists():
            self.add_error(
                "title",
                "There is a recipe of this title already: give this one another, or change that "
                "one.",
            )

    def clean_measures(self):
        return self.cleaned_data["measures"] or self.instance.measures

    def clean_reduced(self):
        percent = self.cleaned_data["reduced"]
        return None if percent is None else percent / 100

    def clean_text(self):
        text = self.cleaned_data["text"].replace("\r\n", "\n").strip()
        lines = [line.strip() for line in text.splitlines() if line.strip()]
        if not lines:
            raise forms.ValidationError("Write at least one ingredient, one a line.")
        if len(lines) > MAX_LINES:
            raise forms.ValidationError(
                f"{len(lines)} lines are more than the {MAX_LINES} that a recipe holds: write it "
                f"as two."
            )
        if any(len(line) > MAX_LINE_LENGTH for line in lines):
            raise forms.ValidationError(f"A line is over {MAX_LINE_LENGTH} characters.")
        return text


def choices_from(data, text: str) -> tuple[dict[str, dict[str, object]], dict[str, str]]:
    """Decisions posted with the form, by the line's text (and which of equal lines it is), and what
    could not be used, with the reason.

    A decision for a line that is no longer in the text is dropped.
    """
    keys = set(choice_keys([line.strip() for line in text.splitlines() if line.strip()]))
    seen: dict[str, int] = {}
    out: dict[str, dict[str, object]] = {}
    errors: dict[str, str] = {}
    for name, line in data.items():
        if not name.startswith("line-"):
            continue
        seen[line] = seen.get(line, 0) + 1
        key = line if seen[line] == 1 else f"{line}\t{seen[line]}"
        if key not in keys:
            continue
        number = name.removeprefix("line-")
        choice: dict[str, object] = {}
        food = data.get(f"food-{number}", "")
        if food_table().usable(food):
            choice["food"] = food
        elif food and not food.startswith("recipe:"):
            errors[key] = "That food is not in the table: choose another."
        grams = data.get(f"grams-{number}", "").strip()
        if grams:
            value = grams_in(grams)
            if within(value, LINE_G):
                choice["grams"] = value
            else:
                errors[key] = f"“{grams[:40]}” is not a weight in grams."
        if choice:
            out[key] = choice
    return out, errors


# A title is no longer. [characters]
TITLE = 160
# No recipe that is sent is larger. [bytes]
MOST_BYTES = 2_000_000


def there_already(shared: Shared) -> Recipe | None:
    """A recipe of the practice with the same title or the same lines."""
    same = Q(text="\n".join(shared.recipe.lines))
    if shared.recipe.title:
        same |= Q(title__iexact=shared.recipe.title[:TITLE])
    return Recipe.objects.filter(same).first()


class ImportForm(forms.Form):
    text = forms.CharField(
        label="Pasted",
        required=False,
        max_length=1_000_000,
        strip=False,
        widget=forms.Textarea(attrs={"rows": 12, "spellcheck": "false"}),
    )
    file = forms.FileField(
        label="Or a file: a saved web page, JSON-LD, CSV or text", required=False
    )
    again = forms.BooleanField(label="Import it a second time", required=False)

    def clean(self):
        super().clean()
        data = self.cleaned_data
        file, text, name = data.get("file"), data.get("text") or "", ""
        if file and text.strip():
            self.add_error(
                "file", "There is pasted text and a file: take them in one after the other."
            )
            return data
        if file:
            name = file.name
            if file.size > MOST_BYTES:
                self.add_error(
                    "file", f"The file is over {MOST_BYTES // 1_000_000} MB: that is no recipe."
                )
                return data
            try:
                text = file.read().decode("utf-8")
            except UnicodeDecodeError:
                self.add_error("file", "The file is not text in UTF-8.")
                return data
        if not text.strip():
            self.add_error("text", "Paste a recipe, or choose a file.")
            return data
        try:
            self.shared = read_recipe(text, name)
        except UnreadableRecipe as error:
            self.add_error("file" if file else "text", f"No recipe was taken from it: {error}.")
            return data
        twin = there_already(self.shared)
        if twin is not None and not data.get("again"):
            same = (
                "the same ingredients"
                if twin.text == "\n".join(self.shared.recipe.lines)
                else "the same title"
            )
            self.add_error(
                "again",
                f"There is a recipe with {same} already: {twin.title}. Tick this to take it in all "
                f"the same.",
            )
        return data


class ScaleForm(forms.Form):
    TO = [
        ("servings", "so many servings"),
        ("stock", "what is on hand of a line [g]"),
        ("package", "whole packages of a line [g each]"),
        ("portion", "a serving of so many kcal"),
    ]
    to = forms.ChoiceField(label="Scale to", choices=TO)
    amount = forms.FloatField(label="How much", min_value=0.1, max_value=100_000)
    line = forms.ChoiceField(label="Line", required=False)

    def __init__(self, *args, lines: list[str], **kwargs):
        super().__init__(*args, **kwargs)
        field_of(self, "line").choices = [("", ""), *((text, text) for text in lines)]

    def clean(self):
        super().clean()
        data = self.cleaned_data
        if data.get("to") in ("stock", "package") and not data.get("line"):
            self.add_error("line", "Choose the line that is on hand or comes in packages.")
        return data


class ManyFiles(forms.ClearableFileInput):
    allow_multiple_selected = True


class ManyField(forms.FileField):
    """Several files."""

    widget = ManyFiles

    def clean(self, data: Any, initial: Any = None) -> list[Any]:
        return [super(ManyField, self).clean(one, initial) for one in data or []]


class ManyForm(forms.Form):
    file = ManyField(
        label="Files: saved web pages, JSON-LD, CSV, text, or a zip of them", required=False
    )

    def clean_file(self) -> list[Any]:
        files: list[Any] = self.cleaned_data["file"]
        if not files:
            raise forms.ValidationError("Choose at least one file.")
        return files
