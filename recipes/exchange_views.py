"""Recipes in, pasted or from a file, and out as JSON-LD, text or CSV."""

from django import forms
from django.contrib import messages
from django.db import transaction
from django.db.models import Q
from django.http import Http404, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.text import slugify

from clients.pages.context import PageRequest
from nutrition.composition.cooking import METHOD_WORDS
from nutrition.composition.foods import food_table
from nutrition.formats.recipe_csv import to_csv
from nutrition.formats.recipe_files import read_recipe
from nutrition.formats.recipe_text import to_text
from nutrition.formats.schema_org import to_json_ld
from nutrition.formats.shared import Shared, known_measures
from nutrition.recipe.model import UnreadableRecipe
from recipes.facts import facts_of, note_parts
from recipes.models import ROLE_CHOICES, Recipe
from recipes.versions import keep

MOST_BYTES = 2_000_000
# How much of each a recipe holds. [characters]
TITLE, SHORT, LONG = 160, 60, 20_000
KINDS = {
    "json": "application/ld+json",
    "txt": "text/plain; charset=utf-8",
    "csv": "text/csv; charset=utf-8",
}


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


def there_already(shared: Shared) -> Recipe | None:
    """A recipe of the practice with the same title or the same lines."""
    same = Q(text="\n".join(shared.recipe.lines))
    if shared.recipe.title:
        same |= Q(title__iexact=shared.recipe.title[:TITLE])
    return Recipe.objects.filter(same).first()


def _fits(text: str, most: int, what: str) -> str:
    """The text if it fits. Raises UnreadableRecipe: nothing is cut."""
    if len(text) > most:
        raise UnreadableRecipe(f"{what} has {len(text):,} characters, and {most:,} can be kept")
    return text


def store(shared: Shared, practice, by) -> tuple[Recipe, list[str]]:
    """A new recipe from what came in, and what of it could not be kept as it was, in words. Raises
    UnreadableRecipe for more than is kept of something."""
    core, told = shared.recipe, list(shared.told)
    foods = food_table()
    choices = {}
    for line, choice in core.choices.items():
        usable = choice.food and foods.usable(choice.food)
        kept: dict[str, object] = {"food": choice.food} if usable else {}
        if choice.food and not kept:
            told.append(
                f"the food chosen for “{line.partition(chr(9))[0][:60]}” is not in the table"
            )
        if choice.grams:
            kept["grams"] = choice.grams
        if kept:
            choices[line] = kept
    if shared.role not in dict(ROLE_CHOICES):
        told.append(f"“{shared.role[:40]}” is no part of a bowl: taken as a dish")
    if core.method and core.method not in METHOD_WORDS:
        told.append(
            f"“{core.method[:40]}” is no way of cooking that is known here: say how it is cooked"
        )
    if shared.measures and not known_measures(shared.measures):
        told.append(
            f"“{shared.measures[:20]}” names no cups that are known here: taken as this practice's "
            f"own"
        )
    title = _fits(core.title or "Imported recipe", TITLE, "its title")
    taken, number = title, 1
    while Recipe.with_removed.filter(title__iexact=title).exists():
        number += 1
        title = f"{taken[: TITLE - 6]} ({number})"
    recipe = Recipe(
        practice=practice,
        title=title,
        role=shared.role if shared.role in dict(ROLE_CHOICES) else "dish",
        text="\n".join(core.lines),
        servings=core.servings,
        batch_g=core.batch_g,
        # "4 to 6" is a claim, the plain number of servings is not
        claims=_fits(
            "" if core.claimed == f"{core.servings:g}" else core.claimed,
            SHORT,
            "what it says it serves",
        ),
        serving_measure=_fits(core.serving_measure, SHORT, "the measure of a serving"),
        cooked_by=core.method if core.method in METHOD_WORDS else "",
        reduced=core.reduced,
        measures=known_measures(shared.measures) or practice.measures,
        method=_fits(shared.instructions, LONG, "the method"),
        choices=choices,
    )
    note_parts(recipe)
    recipe.save()
    keep(recipe, by, "imported")
    return recipe, told


def take_in(request: PageRequest) -> HttpResponse:
    form = ImportForm(request.POST or None, request.FILES or None)
    if request.method == "POST" and form.is_valid():
        try:
            with transaction.atomic():
                recipe, told = store(form.shared, request.practice, request.user)
        except UnreadableRecipe as error:
            form.add_error("file" if request.FILES else "text", f"Nothing was taken: {error}.")
            return render(request, "recipes/import.html", {"form": form}, status=400)
        left = len(facts_of(recipe).unresolved)
        said = (
            "Every line was read."
            if not left
            else f"{left} line{'s' if left > 1 else ''} could not be counted: settle them below."
        )
        messages.success(request, f"{recipe.title} is yours now. {said}")
        for words in told:
            messages.warning(request, f"Not taken as it was: {words}.")
        return redirect("recipes:page", recipe.pk)
    return render(
        request,
        "recipes/import.html",
        {"form": form},
        status=400 if request.method == "POST" else 200,
    )


def give_out(request: PageRequest, pk: int, kind: str) -> HttpResponse:
    recipe: Recipe = get_object_or_404(Recipe.with_removed, pk=pk)
    if kind not in KINDS:
        raise Http404("no such format")
    core = recipe.core()
    shared = Shared(
        recipe=core,
        role=recipe.role,
        instructions=recipe.method.replace("\r\n", "\n"),
        measures=recipe.measures,
    )
    body = (
        to_json_ld(facts_of(recipe), shared)
        if kind == "json"
        else to_csv(shared)
        if kind == "csv"
        else to_text(shared)
    )
    response = HttpResponse(body, content_type=KINDS[kind])
    response["Content-Disposition"] = (
        f'attachment; filename="{slugify(recipe.title) or "recipe"}.{kind}"'
    )
    return response
