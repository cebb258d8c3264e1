"""Day plans of the client in focus, and one day against the targets."""

from datetime import timedelta

from django import forms
from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils import timezone
from django.views.decorators.http import require_POST

from bowls.models import Bowl
from bowls.views import grams_asked
from clients.cautions import of_foods
from clients.context import SESSION_KEY, focused
from clients.in_force import Plan, plan_of, strip
from clients.models import Client
from clients.strip import strip_context
from clients.versions import version_on
from nutrition import indices
from nutrition.amounts import UnreadableAmount, read_amount
from nutrition.foods import food_table
from nutrition.habits import tick
from nutrition.measures import number
from nutrition.search import food_index
from nutrition.situations import day_numbers, week_numbers
from nutrition.tells import tell
from planner.day import ReckonedDay, reckon_day
from planner.models import MEALS, Day, DayEntry
from recipes.models import Recipe

MEAL_KEYS = ("energy_kcal", "protein_g", "fiber_g", "sodium_mg")
MOST = 20.0
AROUND = timedelta(days=3)


class DayForm(forms.Form):
    date = forms.DateField(widget=forms.DateInput(attrs={"type": "date"}))


def day_list(request: HttpRequest) -> HttpResponse:
    client = focused(request)
    days = [{"day": day, "reckoned": reckon_day(day)} for day in client.days.all()[:21]] if client else []
    for row in days:
        row["strip"] = strip(plan_for(row["day"]), row["reckoned"].profile)
    form = DayForm(initial={"date": timezone.localdate()})
    return render(request, "planner/list.html", {"days": days, "form": form, "clients": Client.objects.all()})


@require_POST
def new(request: HttpRequest) -> HttpResponse:
    client, form = focused(request), DayForm(request.POST)
    if client is None or not form.is_valid():
        messages.error(request, "Choose a client first." if client is None else "Give the day a date.")
        return redirect("planner:list")
    date = form.cleaned_data["date"]
    made_for = version_on(client, date)
    day, _made = Day.objects.get_or_create(client=client, date=date, defaults={"practice": request.user.practice, "made_for": made_for})
    return redirect("planner:page", day.pk)


def plan_for(day: Day) -> Plan:
    """The targets the day was planned for."""
    return plan_of(day.client, day.made_for, day.date)


def caution_numbers(day: Day, reckoned: ReckonedDay) -> dict[str, float]:
    """What the cautions look at: this day, and the days planned within three of it."""
    around = day.client.days.filter(date__gte=day.date - AROUND, date__lte=day.date + AROUND).exclude(pk=day.pk)
    week = [reckoned.planned(), *(reckon_day(other).planned() for other in around)]
    return day_numbers(reckoned.planned()) | week_numbers(week, reckoned.supplements)


def page_context(request: HttpRequest, day: Day, errors: dict[int, tuple[str, str]] | None = None) -> dict[str, object]:
    reckoned = reckon_day(day)
    plan = plan_for(day)
    newest = version_on(day.client, day.date)
    targets = {meal.key: meal for meal in plan.day.meals} if plan.day else {}
    school = plan.day.school if plan.day else None
    return {
        "plan": plan,
        "newer": newest if newest and plan.version and newest.pk != plan.version.pk else None,
        "meal_targets": targets,
        "meal_tells": {meal.key: tell(meal.profile, meal.ingredients) for meal in reckoned.meals if meal.entries},
        "tells": tell(reckoned.profile, reckoned.ingredients, school),
        "school": school,
        "habits": tick(school.habits, reckoned.ingredients) if school else [],
        "told": of_foods(plan, reckoned.ingredients, caution_numbers(day, reckoned)),
        "client": day.client,
        "here": reverse("planner:page", args=[day.pk]),
        "day": day,
        "reckoned": reckoned,
        "errors": errors or {},
        "indices": indices.all_indices(reckoned.profile),
        "meal_keys": MEAL_KEYS,
        "meal_choices": MEALS,
    } | strip_context(request, plan, reckoned.profile, day.client, "The plan")


def answer(request: HttpRequest, day: Day, errors: dict[int, tuple[str, str]] | None = None) -> HttpResponse:
    if request.htmx:
        return render(request, "planner/_work.html", page_context(request, day, errors))
    if errors:
        return render(request, "planner/page.html", page_context(request, day, errors), status=400)
    return redirect("planner:page", day.pk)


def page(request: HttpRequest, pk: int) -> HttpResponse:
    day = get_object_or_404(Day.objects.select_related("client"), pk=pk)
    request.session[SESSION_KEY] = day.client_id
    return render(request, "planner/_work.html" if request.htmx else "planner/page.html", page_context(request, day))


def find(request: HttpRequest, pk: int) -> HttpResponse:
    """What can be put into a meal, for what was typed: bowls, recipes, foods."""
    day = get_object_or_404(Day, pk=pk)
    query = request.GET.get("q", "").strip()[:80]
    bowls = Bowl.objects.filter(name__icontains=query)[:5] if query else []
    recipes = Recipe.objects.filter(title__icontains=query)[:5] if query else []
    foods = [match.food for match in food_index().usable(query, 6, typing=True)]
    context = {
        "day": day,
        "q": query,
        "found_bowls": bowls,
        "found_recipes": recipes,
        "found_foods": foods,
        "meal": request.GET.get("meal", "lunch"),
    }
    if request.htmx:
        return render(request, "planner/_found.html", context)
    return render(request, "planner/page.html", page_context(request, day) | context)


@require_POST
def add(request: HttpRequest, pk: int) -> HttpResponse:
    day = get_object_or_404(Day, pk=pk)
    data = request.POST
    meal = data.get("meal") if data.get("meal") in dict(MEALS) else "lunch"
    entry = DayEntry(day=day, meal=meal, amount=1.0)
    if data.get("bowl", "").isdigit():
        entry.bowl = get_object_or_404(Bowl, pk=data["bowl"])
    elif data.get("recipe", "").isdigit():
        entry.recipe = get_object_or_404(Recipe, pk=data["recipe"])
    elif food := food_table().usable(data.get("food", "")):
        entry.food = food.slug
        entry.amount = grams_asked(data.get("grams", "")) or (food.cup.grams / 2 if food.cup else 100.0)
    else:
        messages.error(request, "Choose a bowl, a recipe or a food from the list.")
        return redirect("planner:page", pk)
    day.remember()
    entry.save()
    return answer(request, day)


@require_POST
def change(request: HttpRequest, pk: int, entry: int) -> HttpResponse:
    day = get_object_or_404(Day, pk=pk)
    row = get_object_or_404(day.entries, pk=entry)
    data = request.POST
    if "remove" in data:
        day.remember()
        row.delete()
        return answer(request, day)
    if "lock" in data:
        day.remember()
        row.locked = not row.locked
        row.save()
        return answer(request, day)
    typed = data.get("amount", "").strip()
    try:
        if row.food:
            line = read_amount(typed, food_table()[row.food], request.user.practice.measures)
            row.amount, row.low_g, row.high_g = line.grams, line.low, line.high
        else:
            row.amount = _count(typed)
    except UnreadableAmount as error:
        return answer(request, day, {row.pk: (typed, str(error))})
    day.remember()
    row.save()
    return answer(request, day)


@require_POST
def newer_targets(request: HttpRequest, pk: int) -> HttpResponse:
    """Plan the day for the targets that are in force on its date now."""
    day = get_object_or_404(Day, pk=pk)
    day.made_for = version_on(day.client, day.date)
    day.save()
    return redirect("planner:page", pk)


@require_POST
def undo(request: HttpRequest, pk: int) -> HttpResponse:
    day = get_object_or_404(Day, pk=pk)
    day.step_back()
    return answer(request, day)


def _count(text: str) -> float:
    """How many bowls or servings. Raises UnreadableAmount."""
    try:
        value = number(text.replace(",", "."))
    except ValueError:
        value = 0.0
    if not 0 < value <= MOST:
        raise UnreadableAmount(f"“{text}” is not a count. Write a number such as 1, 1/2 or 1.5, up to {MOST:g}.")
    return value
