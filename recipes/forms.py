"""The recipe form: the text, and what was decided line by line."""

from django import forms

from nutrition.foods import food_table
from nutrition.servings import counted
from recipes.models import Recipe


class RecipeForm(forms.ModelForm):
    version = forms.IntegerField(widget=forms.HiddenInput, required=False)
    why = forms.CharField(
        label="Keep as a version, because",
        max_length=200,
        required=False,
        widget=forms.TextInput(attrs={"placeholder": "a third less miso: sodium"}),
    )

    class Meta:
        model = Recipe
        fields = ["title", "role", "text", "servings", "batch_g", "claims", "serving_measure", "cooked_by", "method"]
        widgets = {
            "text": forms.Textarea(attrs={"rows": 16, "spellcheck": "false", "autocomplete": "off", "data-live": ""}),
            "claims": forms.TextInput(attrs={"placeholder": "4 to 6"}),
            "serving_measure": forms.TextInput(attrs={"placeholder": "5 x 1/2 cup heaping", "data-live": ""}),
            "cooked_by": forms.Select(attrs={"data-live": ""}),
            "method": forms.Textarea(attrs={"rows": 8, "data-live": ""}),
            "servings": forms.NumberInput(attrs={"step": "any", "min": "0.1", "data-live": ""}),
            "batch_g": forms.NumberInput(attrs={"step": "any", "min": "1", "data-live": ""}),
        }

    def __init__(self, *args, **kwargs):
        super().__init__(*args, **kwargs)
        self.fields["cooked_by"].choices = [("", "as weighed, not cooked"), *self.fields["cooked_by"].choices[1:]]
        if self.instance.pk:
            self.fields["version"].initial = self.instance.version
        for name in ("servings", "batch_g"):
            value = self.initial.get(name)
            if value is not None and float(value).is_integer():
                self.initial[name] = int(value)

    def clean(self):
        data = super().clean()
        # how many came out stands over how many it was meant to give
        count, _one = counted(data.get("serving_measure") or "")
        if count is not None:
            data["servings"] = count
        return data

    def clean_text(self):
        text = self.cleaned_data["text"].replace("\r\n", "\n").strip()
        if not any(line.strip() for line in text.splitlines()):
            raise forms.ValidationError("Write at least one ingredient, one a line.")
        return text


def choices_from(data, text: str) -> tuple[dict[str, dict[str, object]], dict[str, str]]:
    """Decisions posted with the form, by the line's text, and what could not be used, with the reason.

    A decision for a line that is no longer in the text is dropped.
    """
    lines = {line.strip() for line in text.splitlines() if line.strip()}
    out: dict[str, dict[str, object]] = {}
    errors: dict[str, str] = {}
    for name, line in data.items():
        if not name.startswith("line-") or line not in lines:
            continue
        number = name.removeprefix("line-")
        choice: dict[str, object] = {}
        food = data.get(f"food-{number}", "")
        if food_table().usable(food):
            choice["food"] = food
        grams = data.get(f"grams-{number}", "").strip()
        if grams:
            try:
                value = float(grams.lower().removesuffix("g").strip().replace(",", "."))
            except ValueError:
                value = -1.0
            if 0 < value <= 100_000:
                choice["grams"] = value
            else:
                errors[line] = f"“{grams}” is not a weight in grams."
        if choice:
            out[line] = choice
    return out, errors
