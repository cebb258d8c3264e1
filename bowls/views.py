"""Bowl list and the bowl page with its round."""

from typing import Any

from django import forms
from django.contrib import messages
from django.db.models import Q
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST

from bowls.bowl import Reckoned, amount_for, reckon_bowl, reckon_part, system_of
from bowls.models import Bowl, BowlPart
from changes.aims import WHOLE_DAY, meal_of, meal_options
from changes.places import meal_of_bowl
from clients.models import Client
from clients.pages.context import PageRequest, settle_on
from clients.plan.cautions import Holder, of_foods
from clients.plan.gate import gate_of
from clients.plan.in_force import Plan, plan_of
from clients.plan.strip import strip_context
from nutrition.composition.foods import ROLES
from nutrition.composition.portion import grams_for_share
from nutrition.insight import indices
from nutrition.insight.summary import tell
from nutrition.targets.meals import MealTarget, usual_meal
from nutrition.written.typed_amounts import MAX_GRAMS, UnreadableAmount
from practice.removal import offered_back
from practice.undo import asked_by
from practice.uses import uses_of
from practice.versioned import StaleSave, version_in
from recipes import adding
from recipes.facts import facts_of, parts_at_hand
from recipes.models import Recipe
from webkit.asked import grams_in, key_in, number_in, short
from webkit.drawing.dishes import dish_round
from webkit.listing import Lists, listed

RIM_KEYS = (
    "protein_g",
    "energy_kcal",
    "fiber_g",
    "sodium_mg",
    "potassium_mg",
    "phosphorus_mg",
    "iron_mg",
    "calcium_mg",
    "fat_g",
)
NUMBER_KEYS = ("energy_kcal", "protein_g", "fiber_g", "sodium_mg", "potassium_mg", "phosphorus_mg")
RIM_COOKIE, RIM_DAYS = "rim", 90

# Stepping and dragging stop here: taking a part out is a step of its own. [g]
LEAST_PART_G = 0.4


BOWL_LISTS = Lists(
    search=("name", "client__name"),
    sorts={
        "name": ("name", ("name", "pk")),
        "new": ("last changed", ("-updated",)),
        "client": ("client", ("client__name", "name")),
    },
    filters={
        "all": ("all", Q(archived=None)),
        "own": ("of one client", Q(client__isnull=False, archived=None)),
        "anybody": ("anybody's", Q(client=None, archived=None)),
        "archived": ("archived", Q(archived__isnull=False)),
    },
)


class BowlForm(forms.ModelForm):
    class Meta:
        model = Bowl
        fields = ["name", "vessel_ml"]


def _list(request: PageRequest, form: BowlForm, status: int = 200) -> HttpResponse:
    rows = []
    bowls = Bowl.objects.select_related("client", "practice").filter(client__removed=None)
    bowls = bowls.prefetch_related("parts__recipe")
    if request.for_client is not None:
        bowls = bowls.filter(client__in=[request.for_client.pk]) | bowls.filter(client=None)
    asked = listed(request, bowls, BOWL_LISTS)
    page = asked.page
    with parts_at_hand():
        all_reckoned = [reckon_bowl(bowl) for bowl in page.object_list]
    for reckoned in all_reckoned:
        rows.append(
            {
                "bowl": reckoned.bowl,
                "reckoned": reckoned,
                "round": dish_round(reckoned.dish, "protein_g", reckoned.bowl.vessel_ml),
                "density": indices.kcal_per_gram(reckoned.profile),
            }
        )
    removed = offered_back(Bowl.with_removed).select_related("removed_by")
    page.object_list = rows
    context = {"list": asked, "rows": page, "form": form, "removed": removed}
    return render(request, "bowls/list.html", context, status=status)


def bowl_list(request: PageRequest) -> HttpResponse:
    return _list(request, BowlForm())


@require_POST
def new(request: PageRequest) -> HttpResponse:
    """A bowl for the client in the address, or for nobody."""
    form = BowlForm(request.POST)
    if not form.is_valid():
        return _list(request, form, 400)
    bowl = form.save(commit=False)
    bowl.practice, bowl.client = request.practice, request.for_client
    bowl.save()
    return redirect("bowls:page", bowl.pk)


def opened(request: PageRequest, pk: int) -> tuple[Bowl, HttpResponse | None]:
    """The bowl, and where to go instead if it was opened for nobody though it is somebody's."""
    bowl: Bowl = get_object_or_404(Bowl.with_removed.select_related("client"), pk=pk)
    bowl.practice = request.practice
    return bowl, settle_on(request, bowl.client) if request.for_client is None else None


def client_of(request: PageRequest, bowl: Bowl) -> Client | None:
    """Whom the page is for: the client in its address, who may not be the bowl's own."""
    return request.for_client or bowl.client


def part_addresses(reckoned: Reckoned) -> dict[str, str]:
    """Where a change of each part is sent to, by the part's key."""
    return {
        str(part.pk): reverse("bowls:change", args=[reckoned.bowl.pk, part.pk])
        for part in reckoned.parts
    }


# Nobody said yet which meal a bowl is: the page asks, once.
UNSAID_MEAL = "until you say which meal it is"


def judged_meal(
    bowl: Bowl, plan: Plan, client: Client | None, asked: str = ""
) -> tuple[MealTarget | None, str]:
    """Which meal a bowl is judged as, and how that came about: what is asked for, what was chosen
    for it, the meal that it was first put into, or the usual one until somebody says. It does not
    move with what is in the bowl. None for the whole day, and where no day is planned for."""
    if plan.day is None:
        return None, ""
    for key, words in (
        (asked, ""),
        (bowl.meal, ""),
        (meal_of_bowl(bowl, client), "As it stands in a day."),
    ):
        if key == WHOLE_DAY or meal_of(plan.day, key) is not None:
            return meal_of(plan.day, key), words
    return usual_meal(plan.day.meals), UNSAID_MEAL


def holders(reckoned: Reckoned) -> list[Holder]:
    """The parts as what a caution may be about."""
    to = part_addresses(reckoned)
    return [
        Holder(
            key=str(part.pk),
            name=part.name,
            foods=frozenset(one.food.name for one in part.foods),
            change_url=to[str(part.pk)],
            dish=part.row.recipe_id is not None,
        )
        for part in reckoned.parts
    ]


def page_context(
    request: PageRequest,
    bowl: Bowl,
    errors: dict[int, tuple[str, str]] | None = None,
    more: bool = False,
) -> dict[str, Any]:
    reckoned = reckon_bowl(bowl)
    asked = request.POST.get("rim") or request.GET.get("rim") or request.COOKIES.get(RIM_COOKIE, "")
    rim = asked if asked in RIM_KEYS else "protein_g"
    client = client_of(request, bowl)
    plan = plan_of(client)
    school = plan.school
    meal, meal_words = judged_meal(bowl, plan, client)
    told = of_foods(plan, reckoned.ingredients, lines=reckoned.unread).held_by(holders(reckoned))
    rows = []
    for part in reckoned.parts:
        typed, error = (errors or {}).get(part.pk, ("", ""))
        rows.append(
            {
                "part": part,
                "share": reckoned.share(part, rim),
                "own": part.profile[rim],
                "typed": typed,
                "error": error,
            }
        )
    return {
        "bowl": bowl,
        "reckoned": reckoned,
        "rows": rows,
        "round": dish_round(reckoned.dish, rim, bowl.vessel_ml, part_addresses(reckoned)),
        "rim": rim,
        "rim_keys": RIM_KEYS,
        "number_keys": NUMBER_KEYS,
        "roles": ROLES,
        "indices": indices.all_indices(reckoned.profile),
        # what stands below the first screen is asked for by itself, a moment after a change
        "tells": None
        if request.htmx and not more
        else tell(reckoned.profile, reckoned.ingredients, school),
        "school": school,
        "told": told,
        "replace_url": reverse("bowls:swap", args=[bowl.pk]),
        "without_url": reverse("bowls:without", args=[bowl.pk]),
        "version": bowl.version,
        "meal_options": meal_options(plan.day) if plan.day else [],
        "judged": meal.key if meal else WHOLE_DAY,
        "meal_words": meal_words,
        "asks_meal": meal_words == UNSAID_MEAL,
        "missing_roles": [
            role for role in ROLES if role not in {part.row.role for part in reckoned.parts}
        ],
        "client": client,
        "somebody_elses": bowl.client
        if client and bowl.client and bowl.client.pk != client.pk
        else None,
        "clients": [] if client else Client.objects.all(),
        "last_change": bowl.last_change,
        "uses": uses_of(bowl) if not request.htmx else [],
        "here": reverse("bowls:page", args=[bowl.pk]),
    } | strip_context(request, plan, reckoned.profile, client, "This bowl", meal, f"bowl-{bowl.pk}")


def answer(
    request: PageRequest,
    bowl: Bowl,
    errors: dict[int, tuple[str, str]] | None = None,
    status: int = 200,
) -> HttpResponse:
    """The working part of the page for htmx; without it, back to the page, or the page with the
    error on it."""
    if request.htmx:
        # what is wrong stands beside its field: the page takes the answer in as any other
        return render(
            request,
            "bowls/_work.html",
            page_context(request, bowl, errors),
            status=status if status == 409 else 200,
        )
    if errors or status != 200:
        return render(
            request, "bowls/page.html", page_context(request, bowl, errors), status=max(status, 400)
        )
    return redirect("bowls:page", bowl.pk)


def stale_answer(
    request: PageRequest, stale: Bowl, what: str, errors: dict[int, tuple[str, str]] | None = None
) -> HttpResponse:
    """A change for a bowl that somebody changed meanwhile: what they did, what was not done, and
    what is stored now."""
    asked = version_in(request.POST.get("version")) or 0
    who = stale.last_change[0] if stale.last_change else "somebody else"
    theirs = "; ".join(stale.changed_since(asked)) or "its parts are shown below as they are stored"
    messages.error(
        request,
        f"{who} changed this bowl after you opened it: {theirs}. Yours was not made: {what}. Make "
        f"it again if it still fits.",
    )
    return answer(request, stale, errors, 409)


def page(request: PageRequest, pk: int) -> HttpResponse:
    bowl, elsewhere = opened(request, pk)
    if elsewhere:
        return elsewhere
    more = bool(request.htmx) and "more" in request.GET
    template = "bowls/page.html"
    if request.htmx:
        template = "bowls/_more.html" if more else "bowls/_work.html"
    context = page_context(request, bowl, more=more)
    response = render(
        request,
        template,
        context | {"settings_form": BowlForm(instance=bowl), "settings_version": bowl.version},
    )
    if request.GET.get("rim") in RIM_KEYS:
        response.set_cookie(
            RIM_COOKIE, context["rim"], max_age=RIM_DAYS * 86_400, httponly=True, samesite="Lax"
        )
    return response


@require_POST
def settings(request: PageRequest, pk: int) -> HttpResponse:
    bowl, _elsewhere = opened(request, pk)
    form = BowlForm(request.POST, instance=bowl)
    status, stale = 400, None
    if form.is_valid():
        asked = version_in(request.POST.get("version"))
        try:
            form.instance.save_over(bowl.version if asked is None else asked)
            return redirect("bowls:page", pk)
        except StaleSave as error:
            stale, status = error.current, 409
    stored = stale or Bowl.with_removed.get(pk=pk)
    context = page_context(request, stored) | {
        "settings_form": form,
        "settings_version": stored.version,
        "settings_stale": stale,
    }
    return render(request, "bowls/page.html", context, status=status)


@require_POST
def copy(request: PageRequest, pk: int) -> HttpResponse:
    """The same bowl for the client in the address, theirs to change."""
    bowl, _elsewhere = opened(request, pk)
    parts = list(bowl.parts.all())
    name = bowl.name if request.for_client is None else f"{bowl.name}, {request.for_client.name}"
    made = Bowl.objects.create(
        practice=bowl.practice, name=name[:120], client=request.for_client, vessel_ml=bowl.vessel_ml
    )
    for part in parts:
        part.pk, part.bowl = None, made
    BowlPart.objects.bulk_create(parts)
    messages.success(
        request,
        f"Copied: this one is {'for ' + made.client.name if made.client else 'for nobody'}.",
    )
    return redirect("bowls:page", made.pk)


@require_POST
def remove(request: PageRequest, pk: int) -> HttpResponse:
    """Take the bowl away; planned days keep it as it was. It can be brought back."""
    bowl, _elsewhere = opened(request, pk)
    if "back" in request.POST:
        bowl.bring_back()
        messages.success(request, f"{bowl.name} is back.")
        return redirect("bowls:page", pk)
    bowl.remove(request.user)
    return redirect(f"{reverse('bowls:list')}?removed={bowl.pk}")


@require_POST
def archive(request: PageRequest, pk: int) -> HttpResponse:
    """Out of the lists and searches, or back in; it stays where it is used."""
    bowl, _elsewhere = opened(request, pk)
    bowl.archive("back" not in request.POST)
    messages.success(request, f"{bowl.name} is {'archived' if bowl.archived else 'in the lists'}.")
    return redirect("bowls:page", pk)


@require_POST
def meal(request: PageRequest, pk: int) -> HttpResponse:
    """Which meal the bowl is judged as."""
    bowl, _elsewhere = opened(request, pk)
    bowl.meal = short(request.POST, "meal", 10)
    # how it is looked at is no change of what is in it: no version, nothing to undo
    Bowl.with_removed.filter(pk=pk).update(meal=bowl.meal)
    return answer(request, bowl)


def find(request: PageRequest, pk: int) -> HttpResponse:
    """What can be added, as buttons, for what was typed: own recipes first, then foods. What is to
    be asked about is marked."""
    bowl, elsewhere = opened(request, pk)
    if elsewhere:
        return elsewhere
    query, client = short(request.GET, "q"), client_of(request, bowl)
    gate, asked = gate_of(plan_of(client)), adding.typed(query)
    context = {
        "bowl": bowl,
        "q": query,
        "amount": asked.amount,
        "found": adding.in_order(
            client,
            asked,
            [("recipe", one) for one in adding.found_recipes(client, gate, asked)],
            adding.found_foods(client, gate, asked, system_of(bowl)),
        )
        if query
        else [],
        "role": short(request.GET, "role", 20),
    }
    if request.htmx:
        return render(request, "bowls/_found.html", context)
    settings_form = {"settings_form": BowlForm(instance=bowl), "settings_version": bowl.version}
    return render(request, "bowls/page.html", page_context(request, bowl) | context | settings_form)


@require_POST
def add(request: PageRequest, pk: int) -> HttpResponse:
    bowl, _elsewhere = opened(request, pk)
    role, key = short(request.POST, "role", 20), key_in(request.POST.get("recipe", ""))
    part, amount = BowlPart(bowl=bowl), short(request.POST, "amount", 40)
    try:
        if key is not None:
            recipe = get_object_or_404(Recipe, pk=key)
            own_role, name = recipe.role if recipe.role in ROLES else "protein", recipe.title
            if facts_of(recipe).serving.grams <= 0:
                messages.error(request, f"{name} weighs nothing yet: settle its lines first.")
                return answer(request, bowl)
            part.recipe, line = recipe, adding.recipe_line(recipe, amount, system_of(bowl))
        else:
            food = adding.food_in(request.POST.get("food", ""))
            if food is None:
                messages.error(request, "Choose a food or a recipe from the list.")
                return answer(request, bowl)
            part.food, own_role, name = food.slug, food.role, food.name
            line = adding.food_line(food, amount, system_of(bowl))
    except UnreadableAmount as error:
        messages.error(request, f"{name} was not added: {error}")
        return answer(request, bowl)
    if amount:
        part.grams, part.low_g, part.high_g = line.grams or 0.0, line.low, line.high
        part.basis = line.basis
    else:
        # a first helping is nobody's measure yet
        part.grams, part.basis = round(line.grams or 0.0, 1), "leveled measure"
    part.role = role if role in ROLES else own_role if own_role in ROLES else "topping"
    asked = request.POST.get("grams", "").strip()
    if asked:
        grams = grams_asked(asked)
        if grams is None:
            messages.error(
                request,
                f"{name} was not added: “{asked[:40]}” is not a weight from {LEAST_PART_G:g} to "
                f"{MAX_GRAMS:g} g.",
            )
            return answer(request, bowl)
        part.level(grams)
    try:
        with bowl.changing(*asked_by(request)) as bowl:
            part.place = bowl.parts.count() + 1
            part.save()
    except StaleSave as error:
        return stale_answer(request, error.current, f"add {name}")
    return answer(request, bowl)


def grams_asked(text: str) -> float | None:
    """Grams that are proposed or typed for what is added; None for none, or none that can be
    used."""
    grams = grams_in(text)
    return grams if grams is not None and LEAST_PART_G <= grams <= MAX_GRAMS else None


@require_POST
def change(request: PageRequest, pk: int, part: int) -> HttpResponse:
    """Type, step, drag, restar or take out one part. Every change can be undone."""
    bowl, _elsewhere = opened(request, pk)
    row = bowl.parts.select_related("recipe").filter(pk=part).first()
    if row is None:
        messages.error(request, "That part is no longer in the bowl: somebody took it out.")
        return answer(request, bowl, status=409)
    data, typed = request.POST, None
    values: dict[str, Any] = {}
    if "star" in data:
        values = {"star": not row.star}
    elif "lock" in data:
        values = {"locked": not row.locked}
    elif "step" in data or "share" in data:
        grams = _stepped(bowl, row, data)
        if grams is None:
            if "step" in data:
                problem = (
                    f"No further: a part weighs {LEAST_PART_G:g} to {MAX_GRAMS:g} g. "
                    f"Take it out with “Out”."
                )
                return answer(request, bowl, {row.pk: (f"{row.grams:g} g", problem)}, 400)
            return answer(request, bowl)
        row.level(grams)
        values = {"grams": row.grams, "low_g": row.low_g, "high_g": row.high_g, "basis": row.basis}
    elif "amount" in data:
        typed = data["amount"][:200]
        try:
            line = amount_for(row, typed[:80])
        except UnreadableAmount as error:
            return answer(request, bowl, {row.pk: (typed, str(error))}, 400)
        values = {"grams": line.grams, "low_g": line.low, "high_g": line.high, "basis": line.basis}
    try:
        with bowl.changing(*asked_by(request), remember="dragging" not in data) as bowl:
            if "remove" in data:
                bowl.parts.filter(pk=part).delete()
            else:
                if "star" in data:
                    bowl.parts.exclude(pk=part).update(star=False)
                bowl.parts.filter(pk=part).update(**values)
    except StaleSave as error:
        errors = (
            {
                row.pk: (
                    typed,
                    "Not set: the bowl was changed meanwhile. Press Enter to set it all the same.",
                )
            }
            if typed
            else None
        )
        return stale_answer(
            request, error.current, _said(reckon_part(row), values, "remove" in data), errors
        )
    return answer(request, bowl)


def _said(part, values: dict, out: bool) -> str:
    """What was to become of a part, in words."""
    if out:
        return f"take out {part.name}"
    return (
        f"{part.name} to {values['grams']:.0f} g"
        if "grams" in values
        else f"a change of {part.name}"
    )


def _stepped(bowl: Bowl, row: BowlPart, data) -> float | None:
    """New grams of a part stepped by a count, or dragged to a share of the bowl's volume; None when
    out of bounds."""
    if "step" in data:
        steps, part = number_in(data["step"]), reckon_part(row)
        grams = None if steps is None or part is None else row.grams + steps * part.step_g
    else:
        reckoned, share = reckon_bowl(bowl), number_in(data["share"])
        part = next((part for part in reckoned.parts if part.pk == row.pk), None)
        if part is None or share is None:
            return None
        grams = grams_for_share(
            share, row.grams, part.volume_ml, reckoned.volume_ml - part.volume_ml
        )
    return grams if grams is not None and LEAST_PART_G <= grams <= MAX_GRAMS else None


@require_POST
def undo(request: PageRequest, pk: int) -> HttpResponse:
    bowl, _elsewhere = opened(request, pk)
    version, _by, page = asked_by(request)
    try:
        whose = bowl.step_back(version, page)
    except StaleSave as error:
        return stale_answer(request, error.current, "the step back")
    if whose and whose != request.user.shown_name:
        messages.info(request, f"Undone: what {whose} changed.")
    return answer(request, Bowl.with_removed.get(pk=pk))
