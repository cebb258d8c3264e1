"""Recipes in, pasted or from a file, and out as JSON-LD, text or CSV."""

from django.contrib import messages
from django.db import transaction
from django.http import Http404, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils.text import slugify

from clients.pages.context import PageRequest
from nutrition.formats.recipe_csv import to_csv
from nutrition.formats.recipe_text import to_text
from nutrition.formats.schema_org import to_json_ld
from nutrition.recipe.model import UnreadableRecipe
from recipes.archive_files import shared_of
from recipes.facts import facts_of
from recipes.forms import ImportForm
from recipes.models import Recipe
from recipes.taking_in import store

KINDS = {
    "json": "application/ld+json",
    "txt": "text/plain; charset=utf-8",
    "csv": "text/csv; charset=utf-8",
}


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
    shared = shared_of(recipe)
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
