"""Day plans of a client, and one day against the targets."""

from datetime import date, timedelta
from typing import Any

from django import forms
from django.contrib import messages
from django.db import IntegrityError, transaction
from django.db.models import Q
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils import timezone
from django.views.decorators.http import require_POST

from bowls.bowl import reckon_bowl
from bowls.models import Bowl
from bowls.views import grams_asked
from clients.models import Client
from clients.pages.context import PageRequest, settle_on
from clients.plan.agreed import agreed_with
from clients.plan.cautions import Holder
from clients.plan.gate import gate_of
from clients.plan.in_force import Plan
from clients.plan.marks import marked_dish
from clients.plan.strip import strip, strip_context
from clients.plan.versions import version_on
from nutrition.composition.derived import amount_of
from nutrition.composition.foods import food_table
from nutrition.composition.nutrients import NUTRIENT
from nutrition.insight import indices
from nutrition.insight.habits import tick
from nutrition.insight.summary import tell
from nutrition.written.guess import UnreadableGuess, read_guess
from nutrition.written.typed_amounts import MAX_GRAMS, UnreadableAmount, read_amount
from planner.counts import count_in
from planner.day import ReckonedDay, entry_now, reckon_day
from planner.filled import filled
from planner.models import MEALS, Day, DayEntry
from planner.origins import origin_of
from planner.planned import changed_since, guess_of, is_out, plan_dish, plan_out
from planner.plans import plan_for
from planner.told import told_of
from practice.removal import offered_back
from practice.undo import asked_by
from practice.versioned import StaleSave, version_in
from recipes import adding
from recipes.facts import facts_of
from recipes.models import Recipe
from webkit import show
from webkit.asked import key_in, short
from webkit.listing import Lists, listed

# How far back and ahead a day can be planned.
DAYS_BACK, DAYS_AHEAD = timedelta(days=3 * 366), timedelta(days=2 * 366)
# A change of a target by less than this share of its aim is not worth a word.
WORTH_SAYING = 0.02


def day_lists() -> Lists:
    """What the list of days can be asked for today."""
    return Lists(
        search=("note",),
        sorts={"new": ("newest", ("-date", "-pk")), "old": ("oldest", ("date", "pk"))},
        filters={
            "all": ("all", Q(archived=None)),
            "ahead": ("from today on", Q(archived=None, date__gte=timezone.localdate())),
            "archived": ("archived", Q(archived__isnull=False)),
        },
    )


# Whose days, where the address names nobody.
WHOSE = Lists(search=("name",), sorts={"name": ("name", ("name",))})


class DayForm(forms.Form):
    date = forms.DateField(widget=forms.DateInput(attrs={"type": "date"}))

    def clean_date(self):
        day, today = self.cleaned_data["date"], timezone.localdate()
        if not today - DAYS_BACK <= day <= today + DAYS_AHEAD:
            raise forms.ValidationError(
                "A day is planned from three years back to two years ahead."
            )
        return day


class SettingsForm(DayForm):
    note = forms.CharField(max_length=200, required=False)


def _list(request: PageRequest, form: DayForm, status: int = 200) -> HttpResponse:
    client = request.for_client
    asked = listed(request, client.days.all() if client else Day.objects.none(), day_lists())
    days = [dict[str, Any](day=day, reckoned=reckon_day(day)) for day in asked.page.object_list]
    for row in days:
        row["strip"] = strip(plan_for(row["day"]), row["reckoned"].profile)
    removed = offered_back(client.days(manager="with_removed")) if client else []
    whose = listed(request, Client.objects.all(), WHOSE) if client is None else None
    context = {
        "days": days,
        "list": asked,
        "rows": asked.page,
        "form": form,
        "whose": whose,
        "nobody": not Client.objects.exists(),
        "removed": removed,
    }
    return render(request, "planner/list.html", context, status=status)


def day_list(request: PageRequest) -> HttpResponse:
    return _list(request, DayForm(initial={"date": timezone.localdate()}))


@require_POST
def new(request: PageRequest) -> HttpResponse:
    """A day of the client in the address."""
    client, form = request.for_client, DayForm(request.POST)
    if client is None:
        messages.error(request, "Choose a client first: a day belongs to one.")
        return redirect("planner:list")
    if not form.is_valid():
        return _list(request, form, 400)
    on = form.cleaned_data["date"]
    try:
        with transaction.atomic():
            made_for = version_on(client, on)
            day, _made = Day.objects.get_or_create(
                client=client,
                date=on,
                defaults={"practice": request.practice, "made_for": made_for},
            )
    except IntegrityError:
        day = Day.objects.get(client=client, date=on)
    return redirect("planner:page", day.pk)


def newer_dishes(reckoned: ReckonedDay, plan: Plan) -> dict[int, str]:
    """By entry, what taking the bowl or recipe as it is now would change of the watched targets, in
    words."""
    out = {}
    for meal in reckoned.meals:
        for entry in meal.entries:
            if entry.row.planned_id and changed_since(entry.row):
                now, moved = entry_now(entry.row, reckoned.day.practice.measures), []
                for row in plan.watched:
                    nutrient = NUTRIENT[row.target.key]
                    before, after = (
                        amount_of(one.profile, nutrient.key).amount for one in (entry, now)
                    )
                    if abs(after - before) >= WORTH_SAYING * (abs(row.target.aim) or 1.0):
                        said = (show.digits(value, nutrient.decimals) for value in (before, after))
                        moved.append(f"{nutrient.name.lower()} {' to '.join(said)} {nutrient.unit}")
                renamed = f"it is called {now.name} now; " if now.name != entry.name else ""
                out[entry.row.pk] = renamed + ("; ".join(moved) or "no watched target moves")
    return out


def holders(reckoned: ReckonedDay) -> list[Holder]:
    """The entries as what a caution may be about."""
    return [
        Holder(
            key=str(entry.row.pk),
            name=entry.name,
            foods=frozenset(one.food.name for one in entry.foods),
            change_url=reverse("planner:change", args=[reckoned.day.pk, entry.row.pk]),
            dish=entry.row.recipe_id is not None,
            open_url=reverse("bowls:page", args=[entry.row.bowl_id]) if entry.row.bowl_id else "",
        )
        for entry in reckoned.entries
    ]


def page_context(
    request: PageRequest,
    day: Day,
    errors: dict[int, tuple[str, str]] | None = None,
    more: bool = False,
) -> dict[str, Any]:
    reckoned = reckon_day(day)
    plan = plan_for(day)
    targets = {meal.key: meal for meal in plan.meals}
    school = plan.school
    habits = tick(school.habits, reckoned.ingredients) if school else []
    return {
        "plan": plan,
        "newer_url": reverse("planner:newer-targets", args=[day.pk]),
        "meal_targets": targets,
        "meal_tells": {
            meal.key: tell(meal.profile, meal.ingredients)
            for meal in reckoned.meals
            if meal.entries
        },
        # what stands below the first screen is asked for by itself, a moment after a change
        "tells": None
        if request.htmx and not more
        else tell(reckoned.profile, reckoned.ingredients, school),
        "school": school,
        "habits": habits,
        "habits_met": sum(row.met for row in habits),
        "next_free": None if request.htmx else next_free(day),
        "told": told_of(plan, day, reckoned).held_by(holders(reckoned)),
        "replace_url": reverse("planner:swap", args=[day.pk]),
        "without_url": reverse("planner:without", args=[day.pk]),
        "version": day.version,
        "meal_of": f"meal-{day.pk}.",
        "newer_dishes": newer_dishes(reckoned, plan),
        "empty_meals": filled(reckoned, plan).empty if plan.day else [],
        "client": day.client,
        "origin": origin_of(day),
        "agreed": agreed_with(day.client),
        "last_change": day.last_change,
        "here": reverse("planner:page", args=[day.pk]),
        "day": day,
        "reckoned": reckoned,
        "errors": errors or {},
        "indices": indices.all_indices(reckoned.profile),
        "by_carbohydrate": day.client.by_carbohydrate,
        "meal_choices": MEALS,
        "settings_form": SettingsForm(initial={"date": day.date, "note": day.note}),
    } | strip_context(request, plan, reckoned.profile, day.client, "The plan", why=f"day-{day.pk}")


def answer(
    request: PageRequest,
    day: Day,
    errors: dict[int, tuple[str, str]] | None = None,
    status: int = 200,
) -> HttpResponse:
    if request.htmx:
        return render(
            request,
            "planner/_work.html",
            page_context(request, day, errors),
            status=status if status == 409 else 200,
        )
    if errors or status != 200:
        return render(
            request,
            "planner/page.html",
            page_context(request, day, errors),
            status=max(status, 400),
        )
    return redirect("planner:page", day.pk)


def stale_answer(
    request: PageRequest, stale: Day, what: str, errors: dict[int, tuple[str, str]] | None = None
) -> HttpResponse:
    """A change for a day that somebody changed meanwhile: what they did, what was not done, and
    what is stored now."""
    who = stale.last_change[0] if stale.last_change else "Somebody else"
    theirs = (
        "; ".join(stale.changed_since(version_in(request.POST.get("version")) or 0))
        or "it is shown below as it is stored"
    )
    messages.error(
        request,
        f"{who} changed this day after you opened it: {theirs}. Yours was not made: {what}. Make "
        f"it again if it still fits.",
    )
    return answer(request, stale, errors, 409)


def opened(request: PageRequest, pk: int) -> tuple[Day, HttpResponse | None]:
    """The day, and where to go instead if its client does not stand in the address: a day is its
    client's alone."""
    day: Day = get_object_or_404(Day.with_removed.select_related("client"), pk=pk)
    day.practice = request.practice
    return day, settle_on(request, day.client)


def page(request: PageRequest, pk: int) -> HttpResponse:
    day, elsewhere = opened(request, pk)
    if elsewhere:
        return elsewhere
    more = bool(request.htmx) and "more" in request.GET
    template = "planner/page.html"
    if request.htmx:
        template = "planner/_more.html" if more else "planner/_work.html"
    return render(request, template, page_context(request, day, more=more))


@require_POST
def settings(request: PageRequest, pk: int) -> HttpResponse:
    """Another date, another note."""
    day, _elsewhere = opened(request, pk)
    form = SettingsForm(request.POST)
    status = 400
    if form.is_valid():
        asked, on = version_in(request.POST.get("version")), form.cleaned_data["date"]
        if day.client.days.filter(date=on).exclude(pk=day.pk).exists():
            form.add_error("date", "There is a plan for that date already.")
        else:
            day.date, day.note = on, form.cleaned_data["note"]
            try:
                day.save_over(day.version if asked is None else asked)
                return redirect("planner:page", pk)
            except StaleSave:
                form.add_error(
                    None,
                    "The day was changed meanwhile: what is stored stands above, and yours is "
                    "still here. Save again to set it.",
                )
                status = 409
    stored = Day.with_removed.select_related("client").get(pk=pk)
    return render(
        request,
        "planner/page.html",
        page_context(request, stored) | {"settings_form": form},
        status=status,
    )


@require_POST
def remove(request: PageRequest, pk: int) -> HttpResponse:
    """Take the day away; it can be brought back, unless another was planned for its date."""
    day, _elsewhere = opened(request, pk)
    if "back" in request.POST:
        if day.client.days.filter(date=day.date).exists():
            messages.error(
                request, f"There is another plan for {day.date:%B %-d} now: take that away first."
            )
            return redirect("planner:list")
        day.bring_back()
        return redirect("planner:page", pk)
    day.remove(request.user)
    return redirect(f"{reverse('planner:list')}?removed={day.pk}")


@require_POST
def put(request: PageRequest) -> HttpResponse:
    """A bowl of the client in the address put into a meal of a date, whose day is opened."""
    client, form = request.for_client, DayForm(request.POST)
    bowl = get_object_or_404(Bowl, pk=key_in(request.POST.get("bowl", "")) or 0)
    if client is None or not form.is_valid():
        messages.error(request, "Choose a date for it.")
        return redirect("bowls:page", bowl.pk)
    meal, on = short(request.POST, "meal", 10), form.cleaned_data["date"]
    day, _made = Day.objects.get_or_create(
        client=client,
        date=on,
        defaults={"practice": request.practice, "made_for": version_on(client, on)},
    )
    with day.changing(None, request.user) as day:
        entry = DayEntry(day=day, meal=meal if meal in dict(MEALS) else "lunch", amount=1.0)
        entry.bowl = bowl
        plan_dish(entry, request.practice)
        entry.save()
    if not bowl.meal and bowl.client_id == client.pk:
        # it was said now which meal it is, and stays so
        Bowl.objects.filter(pk=bowl.pk).update(meal=entry.meal)
    messages.success(request, f"{bowl.name} stands in {on:%A, %B %-d} now.")
    return redirect("planner:page", day.pk)


def next_free(day: Day) -> date:
    """The first date after a day's that has no plan yet."""
    taken = set(day.client.days.filter(date__gt=day.date).values_list("date", flat=True)[:400])
    on = min(day.date, timezone.localdate() + DAYS_AHEAD - timedelta(days=400))
    on += timedelta(days=1)
    while on in taken:
        on += timedelta(days=1)
    return on


@require_POST
def copy(request: PageRequest, pk: int) -> HttpResponse:
    """The same day on another date, for the targets that hold then; its dishes as they were
    planned."""
    day, _elsewhere = opened(request, pk)
    form = DayForm(request.POST)
    on = form.cleaned_data["date"] if form.is_valid() else None
    if on is None or day.client.days.filter(date=on).exists():
        messages.error(request, "Choose a date that has no plan yet.")
        return redirect("planner:page", pk)
    entries = list(day.entries.all())
    with transaction.atomic():
        made = Day.objects.create(
            practice=day.practice,
            client=day.client,
            date=on,
            note=day.note,
            made_for=version_on(day.client, on),
        )
        for entry in entries:
            entry.pk, entry.day = None, made
        DayEntry.objects.bulk_create(entries)
    messages.success(request, f"Duplicated to {on:%A, %B %-d}.")
    return redirect("planner:page", made.pk)


@require_POST
def archive(request: PageRequest, pk: int) -> HttpResponse:
    """Out of the list of days, or back in."""
    day, _elsewhere = opened(request, pk)
    day.archive("back" not in request.POST)
    messages.success(request, "Archived." if day.archived else "Back in the list.")
    return redirect("planner:page", pk)


def find(request: PageRequest, pk: int) -> HttpResponse:
    """What can be put into a meal, for what was typed: bowls, recipes, foods. What is to be asked
    about is marked."""
    day, elsewhere = opened(request, pk)
    if elsewhere:
        return elsewhere
    query, gate = short(request.GET, "q"), gate_of(plan_for(day))
    asked, client, meal = adding.typed(query), day.client, short(request.GET, "meal", 10)
    bowls = []
    if query:
        open_bowls = Bowl.objects.filter(Q(client=None) | Q(client=client), archived=None)
        for bowl in adding.with_words(open_bowls, "name", asked.words)[: adding.MOST_DISHES]:
            bowls.append(marked_dish(gate, bowl, reckon_bowl(bowl).ingredients))
    system = request.practice.measures
    liked = adding.liked_first(client, bowls, lambda one: one.it.name)
    context = {
        "day": day,
        "q": query,
        "amount": asked.amount,
        "found": adding.in_order(
            client,
            asked,
            [
                *(("bowl", one) for one in liked),
                *(("recipe", one) for one in adding.found_recipes(client, gate, asked)),
            ],
            adding.found_foods(client, gate, asked, system),
        )
        if query
        else [],
        "meal": meal if meal in dict(MEALS) else "lunch",
    }
    if request.htmx:
        return render(request, "planner/_found.html", context)
    own = page_context(request, day) | {"found_meal": context["meal"]}
    return render(request, "planner/page.html", own | context)


@require_POST
def add(request: PageRequest, pk: int) -> HttpResponse:
    day, _elsewhere = opened(request, pk)
    data = request.POST
    meal = short(data, "meal", 10)
    meal = meal if meal in dict(MEALS) else "lunch"
    entry, amount = DayEntry(day=day, meal=meal, amount=1.0), short(data, "amount", 40)
    name, food = "It", adding.food_in(data.get("food", ""))
    try:
        if "out" in data:
            guess = read_guess(data.get("out", ""))
            plan_out(entry, request.practice, guess)
            name = guess.words
        elif (key := key_in(data.get("bowl", ""))) is not None:
            entry.bowl = get_object_or_404(Bowl, pk=key)
            name = entry.bowl.name
            if amount:
                entry.amount = count_in(amount.removesuffix("s").removesuffix("bowl").strip())
        elif (key := key_in(data.get("recipe", ""))) is not None:
            entry.recipe = get_object_or_404(Recipe, pk=key)
            name, serving_g = entry.recipe.title, facts_of(entry.recipe).serving.grams
            if amount and serving_g > 0:
                line = adding.recipe_line(entry.recipe, amount, request.practice.measures)
                entry.amount = round((line.grams or 0.0) / serving_g, 3)
        elif food is not None:
            entry.food, name = food.slug, food.name
            line = adding.food_line(food, amount, request.practice.measures)
            entry.amount = line.grams or 0.0
            if amount:
                entry.low_g, entry.high_g = line.low, line.high
            asked = data.get("grams", "").strip()
            if asked:
                grams = grams_asked(asked)
                if grams is None:
                    raise UnreadableAmount(f"“{asked[:40]}” is not a weight up to {MAX_GRAMS:g} g.")
                entry.amount = grams
        else:
            messages.error(request, "Choose a bowl, a recipe or a food from the list.")
            return answer(request, day)
    except UnreadableGuess as error:
        messages.error(request, f"{error} It was: {data.get('out', '')[:400]}")
        return answer(request, day)
    except UnreadableAmount as error:
        messages.error(request, f"{name} was not added: {error}")
        return answer(request, day)
    try:
        with day.changing(*asked_by(request)) as day:
            plan_dish(entry, request.practice)
            entry.save()
    except StaleSave as error:
        return stale_answer(request, error.current, f"add {name}")
    return answer(request, day)


@require_POST
def change(request: PageRequest, pk: int, entry: int) -> HttpResponse:
    day, _elsewhere = opened(request, pk)
    row = day.entries.select_related("bowl", "recipe", "planned").filter(pk=entry).first()
    if row is None:
        messages.error(request, "That is no longer in the day: somebody took it out.")
        return answer(request, day, status=409)
    data, typed = request.POST, ""
    values: dict[str, Any] = {}
    if "lock" in data:
        values = {"locked": not row.locked}
    elif "newer" in data:
        plan_dish(row, request.practice)
        values = {"planned": row.planned}
    elif "remove" not in data:
        typed = data.get("amount", "").strip()[:200]
        try:
            if row.food:
                line = read_amount(typed[:80], food_table()[row.food], request.practice.measures)
                values = {"amount": line.grams, "low_g": line.low, "high_g": line.high}
            elif is_out(row):
                plan_out(row, request.practice, read_guess(f"{guess_of(row).words}, {typed}"))
                values = {"planned": row.planned}
            else:
                values = {"amount": count_in(typed[:40])}
        except (UnreadableAmount, UnreadableGuess) as error:
            return answer(request, day, {row.pk: (typed, str(error))})
    try:
        with day.changing(*asked_by(request)) as day:
            if "remove" in data:
                day.entries.filter(pk=entry).delete()
            else:
                day.entries.filter(pk=entry).update(**values)
    except StaleSave as error:
        errors = (
            {
                row.pk: (
                    typed,
                    "Not set: the day was changed meanwhile. Press Enter to set it all the same.",
                )
            }
            if typed
            else None
        )
        return stale_answer(request, error.current, typed or "a change of one line", errors)
    return answer(request, day)


@require_POST
def newer_targets(request: PageRequest, pk: int) -> HttpResponse:
    """Plan the day for the targets that are in force on its date now."""
    day, _elsewhere = opened(request, pk)
    asked = version_in(request.POST.get("version"))
    day.made_for = version_on(day.client, day.date)
    try:
        day.save_over(day.version if asked is None else asked)
    except StaleSave as error:
        return stale_answer(request, error.current, "the newer targets")
    return redirect("planner:page", pk)


@require_POST
def undo(request: PageRequest, pk: int) -> HttpResponse:
    day, _elsewhere = opened(request, pk)
    version, _by, page = asked_by(request)
    try:
        whose = day.step_back(version, page)
    except StaleSave as error:
        return stale_answer(request, error.current, "the step back")
    if whose and whose != request.user.shown_name:
        messages.info(request, f"Undone: what {whose} changed.")
    return answer(request, Day.with_removed.select_related("client").get(pk=pk))
