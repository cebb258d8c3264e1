"""The recipe list and the two-sided recipe page."""

from functools import partial
from typing import Any

from django.contrib import messages
from django.db.models import F, Q
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST

from clients.pages.context import PageRequest, settle_on
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
from practice.in_passing import note_in_passing
from practice.removal import offered_back
from practice.uses import moves_of, uses_of
from practice.versioned import StaleSave
from recipes.always import always_from, settle_always
from recipes.dishes import serving_said
from recipes.facts import Loop, check_no_loop, facts_of, note_parts, parts_at_hand
from recipes.forms import RecipeForm, choices_from
from recipes.models import ROLE_CHOICES, Recipe
from recipes.numbers import differ, note_all
from recipes.typed import facts_from
from recipes.versions import WORDS, differing, is_kept, keep, save_kept, save_unkept
from recipes.without import save_new
from webkit.asked import key_in, short
from webkit.listing import Lists, listed

# A count of servings this near to the one in force is not offered in its place. [share]
SAME_COUNT = 0.02
SERVING_KEYS = ("energy_kcal", "protein_g", "fiber_g", "sodium_mg", "potassium_mg", "phosphorus_mg")


# The steps are read while they are typed, up to so many characters.
MOST_METHOD = 20_000
# So many foods are offered where one is looked for.
MOST_MEANT = 12


RECIPE_LISTS = Lists(
    search=("title", "text"),
    sorts={
        "title": ("title", ("title",)),
        "new": ("last changed", ("-updated",)),
        "kcal": ("energy, least first", (F("kcal").asc(nulls_last=True), "title")),
        "protein": ("protein, most first", (F("protein_g").desc(nulls_last=True), "title")),
        "density": ("kcal/g, lightest first", (F("kcal_per_gram").asc(nulls_last=True), "title")),
        "settle": ("to settle", ("-unsettled", "title")),
    },
    filters={"all": ("all", Q(archived=None))}
    | {role: (name, Q(role=role, archived=None)) for role, name in ROLE_CHOICES}
    | {
        "own": ("of one client", Q(client__isnull=False, archived=None)),
        "settle": ("to settle", Q(unsettled__gt=0, archived=None)),
        "archived": ("archived", Q(archived__isnull=False)),
    },
)


def recipe_list(request: PageRequest) -> HttpResponse:
    """Everybody's recipes, and those of the client in the address; for nobody, all there are."""
    recipes = Recipe.objects.select_related("client").filter(client__removed=None)
    if request.for_client is not None:
        recipes = recipes.filter(Q(client=None) | Q(client=request.for_client))
    asked = listed(request, recipes, RECIPE_LISTS)
    rows = asked.page
    with parts_at_hand():
        found = [(recipe, facts_of(recipe)) for recipe in rows.object_list]
    moved = [(recipe, facts) for recipe, facts in found if differ(recipe, facts)]
    if moved:
        note_in_passing(partial(note_all, moved))
    shown = [
        {"recipe": recipe, "facts": facts, "indices": indices.all_indices(facts.serving)}
        for recipe, facts in found
    ]
    removed = offered_back(Recipe.with_removed).select_related("removed_by")
    context = {"list": asked, "rows": rows, "shown": shown, "removed": removed}
    return render(request, "recipes/list.html", context)


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


@require_POST
def archive(request: PageRequest, pk: int) -> HttpResponse:
    """Out of the lists and searches, or back in; what it is in keeps it."""
    recipe: Recipe = get_object_or_404(Recipe.with_removed, pk=pk)
    recipe.archive("back" not in request.POST)
    said = "archived" if recipe.archived else "in the lists"
    messages.success(request, f"{recipe.title} is {said}.")
    return redirect("recipes:page", pk)


@require_POST
def copy(request: PageRequest, pk: int) -> HttpResponse:
    """The same recipe under another title, for the client in the address or for everybody."""
    recipe: Recipe = get_object_or_404(Recipe.with_removed, pk=pk)
    made = Recipe(
        practice=recipe.practice,
        client=request.for_client or recipe.client,
        origin=recipe,
        **recipe.kept() | {"title": f"{recipe.title}, another"[:160]},
    )
    save_new(made, request.user, f"duplicated from {recipe.title}")
    messages.success(request, "Duplicated: this is the copy.")
    return redirect("recipes:page", made.pk)


def edit(request: PageRequest, pk: int | None = None) -> HttpResponse:
    recipe = (
        get_object_or_404(Recipe.with_removed.select_related("client"), pk=pk)
        if pk is not None
        else None
    )
    if recipe is None:
        recipe = Recipe(practice=request.practice, measures=request.practice.measures)
    elif request.for_client is None and (elsewhere := settle_on(request, recipe.client)):
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


@require_POST
def remove(request: PageRequest, pk: int) -> HttpResponse:
    """Take the recipe away; what it is in keeps it. It can be brought back."""
    recipe: Recipe = get_object_or_404(Recipe.with_removed, pk=pk)
    if "back" in request.POST:
        recipe.bring_back()
        messages.success(request, f"{recipe.title} is back.")
        return redirect("recipes:page", pk)
    recipe.remove(request.user)
    return redirect(f"{reverse('recipes:list')}?removed={recipe.pk}")
