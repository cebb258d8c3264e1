"""Recipes in, pasted or from a file, and out as JSON-LD, text or CSV."""

from django import forms
from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.text import slugify

from nutrition.cooking import METHOD_WORDS
from nutrition.exchange import Shared, to_csv, to_json_ld, to_text
from nutrition.foods import food_table
from nutrition.recipe import UnreadableRecipe
from recipes.facts import facts_of
from recipes.models import ROLE_CHOICES, Recipe
from recipes.webpage import read_anything

MOST_BYTES = 2_000_000
KINDS = {"json": "application/ld+json", "txt": "text/plain; charset=utf-8", "csv": "text/csv; charset=utf-8"}


class ImportForm(forms.Form):
    text = forms.CharField(
        label="Pasted", required=False, max_length=1_000_000, strip=False, widget=forms.Textarea(attrs={"rows": 12, "spellcheck": "false"})
    )
    file = forms.FileField(label="Or a file: a saved web page, JSON-LD, CSV or text", required=False)

    def clean(self):
        data = super().clean()
        file, text, name = data.get("file"), data.get("text") or "", ""
        if file:
            name = file.name
            if file.size > MOST_BYTES:
                self.add_error("file", f"The file is over {MOST_BYTES // 1_000_000} MB: that is no recipe.")
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
            self.shared = read_anything(text, name)
        except UnreadableRecipe as error:
            self.add_error("file" if file else "text", f"No recipe was taken from it: {error}.")
        return data


def store(shared: Shared, practice) -> Recipe:
    """A new recipe from what came in; what this practice cannot use of it is left out."""
    core = shared.recipe
    foods = food_table()
    choices = {}
    for line, choice in core.choices.items():
        kept = {"food": choice.food} if choice.food and foods.usable(choice.food) else {}
        if choice.grams:
            kept["grams"] = choice.grams
        if kept:
            choices[line] = kept
    return Recipe.objects.create(
        practice=practice,
        title=(core.title or "Imported recipe")[:160],
        role=shared.role if shared.role in dict(ROLE_CHOICES) else "dish",
        text="\n".join(core.lines)[:20_000],
        servings=core.servings,
        batch_g=core.batch_g,
        claims=core.claimed[:60],
        serving_measure=core.serving_measure[:60],
        cooked_by=core.method if core.method in METHOD_WORDS else "",
        method=shared.instructions[:20_000],
        choices=choices,
    )


def take_in(request: HttpRequest) -> HttpResponse:
    form = ImportForm(request.POST or None, request.FILES or None)
    if request.method == "POST" and form.is_valid():
        recipe = store(form.shared, request.user.practice)
        left = len(facts_of(recipe).unresolved)
        said = "Every line was read." if not left else f"{left} line{'s' if left > 1 else ''} could not be counted: settle them below."
        messages.success(request, f"{recipe.title} is yours now. {said}")
        return redirect("recipes:page", recipe.pk)
    return render(request, "recipes/import.html", {"form": form}, status=400 if request.method == "POST" else 200)


def give_out(request: HttpRequest, pk: int, kind: str) -> HttpResponse:
    recipe = get_object_or_404(Recipe, pk=pk)
    if kind not in KINDS:
        raise Http404("no such format")
    core = recipe.core()
    shared = Shared(core, recipe.role, recipe.method.replace("\r\n", "\n"), core.choices)
    body = to_json_ld(facts_of(recipe), shared) if kind == "json" else to_csv(shared) if kind == "csv" else to_text(shared)
    response = HttpResponse(body, content_type=KINDS[kind])
    response["Content-Disposition"] = f'attachment; filename="{slugify(recipe.title) or "recipe"}.{kind}"'
    return response
