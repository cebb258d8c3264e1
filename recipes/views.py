"""The two-sided page of a recipe."""

from typing import Any

from django.contrib import messages
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from clients.pages.context import PageRequest
from clients.plan.cautions import of_foods
from clients.plan.in_force import Plan, plan_of
from clients.plan.strip import strip_context
from nutrition.composition.nutrients import KEYS, NUTRIENTS
from nutrition.composition.profile import Profile
from nutrition.insight import indices
from nutrition.insight.summary import tell
from nutrition.insight.whole_food import whole_food
from nutrition.recipe.kitchen_notes import notes_on
from nutrition.recipe.method_steps import read_steps
from nutrition.recipe.model import MAX_LINES
from nutrition.recipe.notation import not_counted
from nutrition.recipe.reckoning import Facts
from nutrition.recipe.serving_measure import UnreadableServing, measured
from nutrition.targets.meals import MealTarget, likely_meal
from nutrition.written.finding import find_foods
from nutrition.written.serving_words import is_yield
from practice.forms import with_version
from practice.uses import moves_of, uses_of
from practice.versioned import StaleSave
from recipes.dishes import serving_said
from recipes.draft import facts_from
from recipes.facts import Loop, check_no_loop, facts_of, note_parts
from recipes.forms import RecipeForm, choices_from
from recipes.models import Recipe
from recipes.page import PAGES
from recipes.standing_choices import always_from, settle_always
from recipes.versions import WORDS, differing, is_kept, keep, save_kept, save_unkept
from webkit.request_values import key_in, short

# A count of servings this near to the one in force is not offered in its place. [share]
SAME_COUNT = 0.02
SERVING_KEYS = ("energy_kcal", "protein_g", "fiber_g", "sodium_mg", "potassium_mg", "phosphorus_mg")


# The steps are read while they are typed, up to so many characters.
MOST_METHOD = 20_000
# So many foods are offered where one is looked for.
MOST_MEANT = 12


def _context(
    request: PageRequest,
    facts: Facts | None,
    errors: dict[str, str],
    method: str,
    claims: str = "",
    measure: str = "",
    written: str = "",
    of: Recipe | None = None,
) -> dict[str, Any]:
    """What the right side and the serving panel need."""
    # Whole: all that the page shows, a name a line.
    chosen = request.POST.get("bring") or request.GET.get("bring") or "protein_g"
    chosen = chosen if chosen in KEYS else "protein_g"
    text = request.POST.get("text", "") if request.method == "POST" else written
    left_out = (not_counted(line.strip()) for line in text.splitlines()[:MAX_LINES])
    context: dict[str, Any] = {
        "facts": facts,
        "assumed": [(line.text, note) for line in facts.lines for note in line.assumed]
        if facts
        else [],
        "left_out": [one for one in left_out if one is not None],
        "asking": sum(bool(line.ask) or not line.sure for line in facts.lines) if facts else 0,
        "line_errors": errors,
        "always": always_from(request.POST),
        "chosen": chosen,
        "nutrients": NUTRIENTS,
        "serving_keys": SERVING_KEYS,
    }
    if facts is not None:
        client = request.for_client
        plan = plan_of(client)
        serving, parts = facts.serving, facts.foods()
        role = request.POST.get("role") or (of.role if of else "")
        meal = judged_serving(plan, serving, role)
        context |= strip_context(
            request,
            plan,
            serving,
            client,
            "One serving",
            meal,
            f"recipe-{of.pk}" if of and of.pk else "",
            judge=meal is not None,
        )
        context |= {
            "client": client,
            "told": of_foods(plan, parts, lines=facts.unread),
            "school": plan.school,
            "serving": serving,
            "indices": indices.all_indices(serving),
            "brings": facts.brings(chosen)[:6],
            "chosen_total": serving[chosen],
            "measure": serving_said(role, facts),
            "tells": tell(serving, parts, plan.school),
            "whole_food": whole_food(facts, plan.school),
        }
        said = (
            request.POST
            if request.method == "POST"
            else {"claims": claims, "serving_measure": measure}
        )
        context["claims"] = said.get("claims", "")
        # what came out of the pot is no claim of how many it serves, and counts where it belongs
        context["claims_wrong"] = is_yield(context["claims"])
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


@require_POST
def preview(request: PageRequest) -> HttpResponse:
    """The right side and the serving, reckoned from what stands in the form."""
    facts, errors = facts_from(request.POST, request.practice.measures)
    pk = key_in(request.GET.get("of", ""))
    of = Recipe.with_removed.filter(pk=pk).first() if pk is not None else None
    return render(
        request,
        "recipes/_reckoned.html",
        _context(request, facts, errors, request.POST.get("method", "")[:MOST_METHOD], of=of),
    )


def foods(request: PageRequest) -> HttpResponse:
    """The foods that a line may mean, by what is typed in its place."""
    q = short(request.GET, "q")
    context = {
        "q": q,
        "line": key_in(request.GET.get("line", "")) or 0,
        "matches": find_foods(q, MOST_MEANT, typing=True) if q else [],
    }
    return render(request, "recipes/_foods.html", context)


def judged_serving(plan: Plan, serving: Profile, role: str) -> MealTarget | None:
    """The meal that a serving is judged as: for a whole dish the one whose energy it comes nearest
    to. Anything else is only part of some meal: None, and it is not judged."""
    if plan.day is None or role != "dish":
        return None
    return likely_meal(plan.day.meals, serving["energy_kcal"].amount)


@require_POST
def keep_typing(request: PageRequest, pk: int) -> HttpResponse:
    """What stands in the form of a recipe, kept while it is written: the state before is a version,
    and it is itself one when that is asked for."""
    recipe: Recipe = get_object_or_404(Recipe.with_removed, pk=pk)
    form = RecipeForm(request.POST, instance=recipe)
    _facts, errors = facts_from(request.POST, recipe.measures, recipe)
    context: dict[str, Any] = {"status": "saved"}
    try:
        if not form.is_valid() or errors:
            first = next((str(row[0]) for row in form.errors.values()), "a line is to be mended")
            raise ValueError(first)
        check_no_loop(form.instance)
        form.instance.choices = choices_from(request.POST, form.cleaned_data["text"])[0]
        save_unkept(form.instance, form.cleaned_data["version"] or 0, request.user)
        context["version"] = form.instance.version
    except StaleSave:
        context["status"] = "not saved: somebody else changed it. Press Save to see both"
    except ValueError as error:
        context["status"] = f"not saved yet: {error}"
    return render(request, "recipes/_kept.html", context)


def edit(request: PageRequest, pk: int | None = None) -> HttpResponse:
    # Whole: one form: opened, refused, stale, saved.
    if pk is None:
        recipe = Recipe(practice=request.practice, measures=request.practice.measures)
    else:
        recipe, elsewhere = PAGES.opened(request, pk)
        if elsewhere:
            return elsewhere
    form = RecipeForm(request.POST or None, instance=recipe)
    stale, differs, status = None, [], 200
    if request.method == "POST":
        facts, errors = facts_from(request.POST, recipe.measures, recipe)
        if "reckon" not in request.POST:
            if form.is_valid():
                try:
                    check_no_loop(form.instance)
                except Loop as error:
                    form.add_error("text", str(error))
            if form.is_valid() and not errors:
                form.instance.choices = choices_from(request.POST, form.cleaned_data["text"])[0]
                try:
                    response = _saved(request, form)
                    if facts is not None:
                        always = always_from(request.POST)
                        for words in settle_always(request.practice, request.user, facts, always):
                            messages.info(request, words)
                    return response
                except StaleSave as error:
                    stale = error.current
                    differs = [
                        (WORDS[name], getattr(stale, name), getattr(form.instance, name))
                        for name in differing(stale, form.instance)
                    ]
                    form.data = with_version(form.data, stale.version)
            status = 409 if stale else 400
    else:
        facts, errors = (facts_of(recipe), {}) if recipe.pk else (None, {})
    method = (
        request.POST.get("method", "")[:MOST_METHOD] if request.method == "POST" else recipe.method
    )
    versions = list(recipe.versions.all()[:1]) if recipe.pk else []
    context = _context(
        request,
        facts,
        errors,
        method,
        recipe.claims,
        recipe.serving_measure,
        recipe.text,
        recipe,
    ) | {
        "form": form,
        "last_version": next(iter(versions), None),
        "version_count": recipe.versions.count() if recipe.pk else 0,
        "unkept": bool(versions) and not is_kept(recipe),
        "recipe": recipe,
        "stale": stale,
        "differs": differs,
        "somebody_elses": recipe.client
        if recipe.client and request.for_client and recipe.client != request.for_client
        else None,
        "uses": uses_of(recipe) if recipe.pk else [],
    }
    return render(request, "recipes/page.html", context, status=status)


def _saved(request: PageRequest, form: RecipeForm) -> HttpResponse:
    """Store what the form holds, with what it was before as a version, and say what moves with it.
    Raises StaleSave."""
    recipe, why = form.instance, form.cleaned_data["why"]
    if not recipe.pk:
        note_parts(recipe)
        recipe.save()
        keep(recipe, request.user, why or "first written")
        messages.success(request, "Saved.")
        return redirect("recipes:page", recipe.pk)
    before = Recipe.with_removed.get(pk=recipe.pk)
    kept = save_kept(recipe, form.cleaned_data["version"] or 0, request.user, why)
    messages.success(
        request, f"Saved as version {kept.number}. What it was is kept." if kept else "Saved."
    )
    for words in moves_of(before, recipe):
        messages.info(request, words)
    return redirect("recipes:page", recipe.pk)
