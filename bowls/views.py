"""Bowl list and the bowl page with its round."""

from django import forms
from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST

from bowls.bowl import amount_for, reckon_bowl, reckon_part
from bowls.models import Bowl, BowlPart
from bowls.picture import bowl_round
from clients.cautions import of_foods
from clients.context import focused
from clients.in_force import plan_of
from clients.models import Client
from clients.strip import strip_context
from nutrition import indices
from nutrition.amounts import MAX_GRAMS, UnreadableAmount
from nutrition.bowl import FIRST_HELPING_G, grams_for_share
from nutrition.foods import ROLES, food_table
from nutrition.search import food_index
from nutrition.tells import tell
from recipes.facts import facts_of
from recipes.models import Recipe

RIM_KEYS = ("protein_g", "energy_kcal", "fiber_g", "sodium_mg", "potassium_mg", "phosphorus_mg", "iron_mg", "calcium_mg", "fat_g")
NUMBER_KEYS = ("energy_kcal", "protein_g", "fiber_g", "sodium_mg", "potassium_mg", "phosphorus_mg")


# Stepping and dragging stop here: taking a part out is a step of its own. [g]
LEAST_PART_G = 0.4


class BowlForm(forms.ModelForm):
    class Meta:
        model = Bowl
        fields = ["name", "vessel_ml"]


def _list(request: HttpRequest, form: BowlForm, status: int = 200) -> HttpResponse:
    rows = []
    for bowl in Bowl.objects.select_related("client"):
        reckoned = reckon_bowl(bowl)
        rows.append(
            {
                "bowl": bowl,
                "reckoned": reckoned,
                "round": bowl_round(reckoned, "protein_g"),
                "density": indices.kcal_per_gram(reckoned.profile),
            }
        )
    return render(request, "bowls/list.html", {"rows": rows, "form": form}, status=status)


def bowl_list(request: HttpRequest) -> HttpResponse:
    return _list(request, BowlForm())


@require_POST
def new(request: HttpRequest) -> HttpResponse:
    form = BowlForm(request.POST)
    if not form.is_valid():
        return _list(request, form, 400)
    bowl = form.save(commit=False)
    bowl.practice, bowl.client = request.user.practice, focused(request)
    bowl.save()
    return redirect("bowls:page", bowl.pk)


def client_of(request: HttpRequest, bowl: Bowl) -> Client | None:
    """Whom a bowl is for: its own client, or the one in focus."""
    return bowl.client or focused(request)


def page_context(request: HttpRequest, bowl: Bowl, errors: dict[int, tuple[str, str]] | None = None) -> dict[str, object]:
    reckoned = reckon_bowl(bowl)
    asked = request.POST.get("rim") or request.GET.get("rim") or request.session.get("rim", "protein_g")
    rim = asked if asked in RIM_KEYS else "protein_g"
    if request.session.get("rim") != rim:
        request.session["rim"] = rim
    client = client_of(request, bowl)
    plan = plan_of(client) if client else None
    school = plan.day.school if plan and plan.day else None
    rows = []
    for part in reckoned.parts:
        typed, error = (errors or {}).get(part.pk, ("", ""))
        rows.append({"part": part, "share": reckoned.share(part, rim), "own": part.profile[rim], "typed": typed, "error": error})
    return {
        "bowl": bowl,
        "reckoned": reckoned,
        "rows": rows,
        "round": bowl_round(reckoned, rim),
        "rim": rim,
        "rim_keys": RIM_KEYS,
        "number_keys": NUMBER_KEYS,
        "roles": ROLES,
        "indices": indices.all_indices(reckoned.profile),
        "tells": tell(reckoned.profile, reckoned.ingredients, school),
        "school": school,
        "told": of_foods(plan, reckoned.ingredients),
        "client": client,
        "here": reverse("bowls:page", args=[bowl.pk]),
    } | strip_context(request, plan, reckoned.profile, client, "This bowl")


def answer(request: HttpRequest, bowl: Bowl, errors: dict[int, tuple[str, str]] | None = None) -> HttpResponse:
    """The working part of the page for htmx; without it, back to the page, or the page with the error on it."""
    if request.htmx:
        return render(request, "bowls/_work.html", page_context(request, bowl, errors))
    if errors:
        return render(request, "bowls/page.html", page_context(request, bowl, errors), status=400)
    return redirect("bowls:page", bowl.pk)


def page(request: HttpRequest, pk: int) -> HttpResponse:
    bowl = get_object_or_404(Bowl, pk=pk)
    template = "bowls/_work.html" if request.htmx else "bowls/page.html"
    return render(request, template, page_context(request, bowl) | {"settings_form": BowlForm(instance=bowl)})


@require_POST
def settings(request: HttpRequest, pk: int) -> HttpResponse:
    bowl = get_object_or_404(Bowl, pk=pk)
    form = BowlForm(request.POST, instance=bowl)
    if form.is_valid():
        form.save()
        return redirect("bowls:page", pk)
    return render(request, "bowls/page.html", page_context(request, Bowl.objects.get(pk=pk)) | {"settings_form": form}, status=400)


def find(request: HttpRequest, pk: int) -> HttpResponse:
    """What can be added, as buttons, for what was typed: own recipes first, then foods."""
    bowl = get_object_or_404(Bowl, pk=pk)
    query = request.GET.get("q", "").strip()[:80]
    recipes = Recipe.objects.filter(title__icontains=query)[:5] if query else []
    foods = [match.food for match in food_index().usable(query, 8, typing=True)]
    context = {"bowl": bowl, "q": query, "found_recipes": recipes, "found_foods": foods, "role": request.GET.get("role", "")}
    if request.htmx:
        return render(request, "bowls/_found.html", context)
    return render(request, "bowls/page.html", page_context(request, bowl) | context | {"settings_form": BowlForm(instance=bowl)})


@require_POST
def add(request: HttpRequest, pk: int) -> HttpResponse:
    bowl = get_object_or_404(Bowl, pk=pk)
    role = request.POST.get("role", "")
    part = BowlPart(bowl=bowl, place=bowl.parts.count() + 1)
    if request.POST.get("recipe", "").isdigit():
        recipe = get_object_or_404(Recipe, pk=request.POST["recipe"])
        part.recipe, part.grams, part.basis = recipe, round(facts_of(recipe).serving.grams, 1), "leveled measure"
        own_role = recipe.role if recipe.role in ROLES else "protein"
        if part.grams <= 0:
            messages.error(request, f"{recipe.title} weighs nothing yet: settle its lines first.")
            return redirect("bowls:page", pk)
    else:
        food = food_table().usable(request.POST.get("food", ""))
        if food is None:
            messages.error(request, "Choose a food or a recipe from the list.")
            return redirect("bowls:page", pk)
        part.food, own_role = food.slug, food.role
    part.role = role if role in ROLES else own_role if own_role in ROLES else "topping"
    if part.food:
        part.grams = grams_asked(request.POST.get("grams", "")) or FIRST_HELPING_G[part.role]
    bowl.remember()
    part.save()
    return answer(request, bowl)


def grams_asked(text: str) -> float | None:
    """Grams that a hint proposes for what is added; None for none, or none that can be used."""
    try:
        grams = float(text)
    except ValueError:
        return None
    return grams if LEAST_PART_G <= grams <= MAX_GRAMS else None


@require_POST
def change(request: HttpRequest, pk: int, part: int) -> HttpResponse:
    """Type, step, drag, restar or take out one part. Every change can be undone."""
    bowl = get_object_or_404(Bowl, pk=pk)
    row = get_object_or_404(bowl.parts, pk=part)
    data = request.POST
    if "remove" in data:
        bowl.remember()
        row.delete()
    elif "star" in data:
        bowl.remember()
        bowl.parts.exclude(pk=row.pk).update(star=False)
        row.star = not row.star
        row.save()
    elif "lock" in data:
        bowl.remember()
        row.locked = not row.locked
        row.save()
    elif "limits" in data:
        return _set_limits(request, bowl, row)
    elif "step" in data or "share" in data:
        grams = _stepped(bowl, row, data)
        if grams is not None:
            if "dragging" not in data:
                bowl.remember()
            row.grams, row.low_g, row.high_g, row.basis = grams, grams * 0.9, grams * 1.1, "leveled measure"
            row.save()
    elif "amount" in data:
        try:
            line = amount_for(row, data["amount"])
        except UnreadableAmount as error:
            return answer(request, bowl, {row.pk: (data["amount"], str(error))})
        bowl.remember()
        row.grams, row.low_g, row.high_g, row.basis = line.grams, line.low, line.high, line.basis
        row.save()
    return answer(request, bowl)


def _set_limits(request: HttpRequest, bowl: Bowl, row: BowlPart) -> HttpResponse:
    """The least and the most that a proposal may make of a part; empty means the usual."""
    values = []
    for name in ("least_g", "most_g"):
        typed = request.POST.get(name, "").strip().lower().removesuffix("g").strip().replace(",", ".")
        try:
            values.append(float(typed) if typed else None)
        except ValueError:
            return answer(request, bowl, {row.pk: (f"{row.grams:g} g", f"“{typed}” is not a weight in grams.")})
    least, most = values
    if any(value is not None and not 0 <= value <= MAX_GRAMS for value in values) or (least or 0) > (MAX_GRAMS if most is None else most):
        return answer(request, bowl, {row.pk: (f"{row.grams:g} g", "The least must be zero or more, and not over the most.")})
    bowl.remember()
    row.least_g, row.most_g = least, most
    row.save()
    return answer(request, bowl)


def _stepped(bowl: Bowl, row: BowlPart, data) -> float | None:
    """New grams of a part stepped by a count, or dragged to a share of the bowl's volume; None when out of bounds."""
    try:
        if "step" in data:
            grams = row.grams + float(data["step"]) * reckon_part(row).step_g
        else:
            reckoned = reckon_bowl(bowl)
            part = next(part for part in reckoned.parts if part.pk == row.pk)
            grams = grams_for_share(float(data["share"]), row.grams, part.volume_ml, reckoned.volume_ml - part.volume_ml)
    except ValueError:
        return None
    return grams if grams is not None and LEAST_PART_G <= grams <= MAX_GRAMS else None


@require_POST
def undo(request: HttpRequest, pk: int) -> HttpResponse:
    bowl = get_object_or_404(Bowl, pk=pk)
    bowl.step_back()
    return answer(request, bowl)
