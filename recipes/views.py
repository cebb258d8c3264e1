"""The recipe list and the two-sided recipe page."""

from django.contrib import messages
from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from clients.cautions import of_foods
from clients.context import focused
from clients.in_force import plan_of
from clients.strip import strip_context
from nutrition import household, indices
from nutrition.bowl import Ingredient
from nutrition.cooking import METHOD_WORDS
from nutrition.kitchen_notes import notes_on
from nutrition.lines import Choice
from nutrition.nutrients import KEYS, NUTRIENTS
from nutrition.recipe import MAX_LINES, Facts
from nutrition.recipe import Recipe as CoreRecipe
from nutrition.servings import UnreadableServing, counted, measured
from nutrition.steps import read_steps
from nutrition.tells import tell
from nutrition.whole_food import whole_food
from practice.versioned import StaleSave
from recipes.facts import Loop, check_no_loop, facts_of, facts_of_core
from recipes.forms import RecipeForm, choices_from
from recipes.models import Recipe
from recipes.versions import keep, keep_first

# A count of servings this near to the one in force is not offered in its place. [share]
SAME_COUNT = 0.02
SERVING_KEYS = ("energy_kcal", "protein_g", "fiber_g", "sodium_mg", "potassium_mg", "phosphorus_mg")


def recipe_list(request: HttpRequest) -> HttpResponse:
    asked = request.GET.get("q", "").strip()
    recipes = Recipe.objects.filter(title__icontains=asked) if asked else Recipe.objects.all()
    rows = [{"recipe": recipe, "facts": facts_of(recipe)} for recipe in recipes]
    for row in rows:
        row["indices"] = indices.all_indices(row["facts"].serving)
    return render(request, "recipes/list.html", {"rows": rows, "q": asked})


def _number(text: str, default: float | None) -> float | None:
    try:
        value = float(text)
    except ValueError:
        return default
    return value if 0 < value < 1e6 else default


def _context(
    request: HttpRequest, facts: Facts | None, errors: dict[str, str], method: str, claims: str = "", measure: str = ""
) -> dict[str, object]:
    """What the right side and the serving panel need."""
    chosen = request.POST.get("bring") or request.GET.get("bring") or "protein_g"
    chosen = chosen if chosen in KEYS else "protein_g"
    context: dict[str, object] = {
        "facts": facts,
        "line_errors": errors,
        "chosen": chosen,
        "nutrients": NUTRIENTS,
        "serving_keys": SERVING_KEYS,
    }
    if facts is not None:
        serving = facts.serving
        context["serving"] = serving
        context["indices"] = indices.all_indices(serving)
        context["brings"] = facts.brings(chosen)[:6]
        context["chosen_total"] = serving[chosen]
        volume = facts.volume_ml
        context["measure"] = household.by_volume(volume / facts.recipe.servings, serving.grams) if volume else None
        client = focused(request)
        plan = plan_of(client) if client else None
        context["client"] = client
        context |= strip_context(request, plan, serving, client, "One serving")
        parts = [Ingredient(food, grams) for food, grams in facts.foods()]
        context["told"] = of_foods(plan, parts)
        context["school"] = plan.day.school if plan and plan.day else None
        context["tells"] = tell(serving, parts, context["school"])
        context["whole_food"] = whole_food(facts, context["school"])
        said = request.POST if request.method == "POST" else {"claims": claims, "serving_measure": measure}
        context["claims"] = said.get("claims", "")
        if said.get("serving_measure", "").strip():
            try:
                found = measured(facts, said["serving_measure"], facts.recipe.system)
                context["serving_check"] = found.check
                if abs(found.count / facts.recipe.servings - 1.0) > SAME_COUNT:
                    context["serving_count"] = f"{found.count:.2g}"
            except UnreadableServing as error:
                context["serving_wrong"] = str(error)
        context["worked"] = worked = read_steps(method, facts.lines)
        context["kitchen_notes"] = notes_on(worked, facts.lines)
        context["unused"] = [facts.lines[i].text for i in worked.unused]
    return context


def _facts_from(data, system: str) -> tuple[Facts | None, dict[str, str]]:
    """Facts of what is in the form right now, valid or not."""
    text = data.get("text", "")
    lines = tuple(line.strip()[:400] for line in text.splitlines() if line.strip())[:MAX_LINES]
    if not lines:
        return None, {}
    choices, errors = choices_from(data, text)
    measure = data.get("serving_measure", "").strip()[:60]
    servings = counted(measure)[0] or _number(data.get("servings", ""), 1.0) or 1.0
    core = CoreRecipe(
        lines,
        data.get("title", ""),
        servings,
        _number(data.get("batch_g", ""), None),
        {line: Choice(**choice) for line, choice in choices.items()},
        data.get("cooked_by", "") if data.get("cooked_by", "") in METHOD_WORDS else "",
        system=system,
        serving_measure=measure,
    )
    return facts_of_core(core), errors


@require_POST
def preview(request: HttpRequest) -> HttpResponse:
    """The right side and the serving, reckoned from what stands in the form."""
    facts, errors = _facts_from(request.POST, request.user.practice.measures)
    return render(request, "recipes/_reckoned.html", _context(request, facts, errors, request.POST.get("method", "")))


def edit(request: HttpRequest, pk: int | None = None) -> HttpResponse:
    recipe = get_object_or_404(Recipe, pk=pk) if pk else Recipe(practice=request.user.practice)
    form = RecipeForm(request.POST or None, instance=recipe)
    stale, status = None, 200
    if request.method == "POST":
        facts, errors = _facts_from(request.POST, request.user.practice.measures)
        if "reckon" not in request.POST:
            if form.is_valid():
                try:
                    check_no_loop(form.instance.core())
                except Loop as error:
                    form.add_error("text", str(error))
            if form.is_valid() and not errors:
                form.instance.choices = choices_from(request.POST, form.cleaned_data["text"])[0]
                why = form.cleaned_data["why"]
                try:
                    with transaction.atomic():
                        if why and recipe.pk:
                            keep_first(Recipe.objects.get(pk=recipe.pk), request.user)
                        if recipe.pk:
                            form.instance.save_over(form.cleaned_data["version"] or 0)
                        else:
                            form.instance.save()
                        kept = keep(form.instance, request.user, why) if why else None
                    messages.success(request, f"Saved, and kept as version {kept.number}." if kept else "Saved.")
                    return redirect("recipes:page", form.instance.pk)
                except StaleSave as error:
                    stale = error.current
                    form.data = form.data.copy()
                    form.data["version"] = stale.version
            status = 409 if stale else 400
    else:
        facts, errors = (facts_of(recipe), {}) if recipe.pk else (None, {})
    method = request.POST.get("method", "") if request.method == "POST" else recipe.method
    context = _context(request, facts, errors, method, recipe.claims, recipe.serving_measure) | {
        "form": form,
        "recipe": recipe,
        "stale": stale,
    }
    return render(request, "recipes/page.html", context, status=status)
