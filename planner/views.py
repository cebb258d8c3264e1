"""What is changed on the page of a day: dishes put into it, added, set, taken out."""

from typing import Any

from django.contrib import messages
from django.db.models import Q
from django.http import HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST

from bowls.bowl import reckon_bowl
from bowls.models import Bowl
from clients.pages.context import PageRequest
from clients.plan.gate import gate_of
from clients.plan.marks import marked_dish
from nutrition.composition.foods import food_table
from nutrition.written.guess import UnreadableGuess, read_guess
from nutrition.written.typed_amounts import MAX_GRAMS, UnreadableAmount, read_amount
from planner.counts import count_in
from planner.forms import DayForm
from planner.models import MEALS, DayEntry
from planner.page import PAGES, day_on
from planner.planned_copies import guess_of, is_out, plan_dish, plan_out
from planner.plans import plan_for
from practice.undo import asked_by
from practice.versioned import StaleSave
from recipes import adding
from recipes.facts import facts_of
from recipes.models import Recipe
from webkit.request_values import key_in, short


@require_POST
def put(request: PageRequest) -> HttpResponse:
    """A bowl of the client in the address put into a meal of a date, whose day is opened."""
    client, form = request.for_client, DayForm(request.POST)
    bowl = get_object_or_404(Bowl, pk=key_in(request.POST.get("bowl", "")) or 0)
    if client is None or not form.is_valid():
        messages.error(request, "Choose a date for it.")
        return redirect("bowls:page", bowl.pk)
    meal, on = short(request.POST, "meal", 10), form.cleaned_data["date"]
    day = day_on(request.practice, client, on)
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


def find(request: PageRequest, pk: int) -> HttpResponse:
    """What can be put into a meal, for what was typed: bowls, recipes, foods. What is to be asked
    about is marked."""
    day, elsewhere = PAGES.opened(request, pk)
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
    own = PAGES.context(request, day) | {"found_meal": context["meal"]}
    return render(request, "planner/page.html", own | context)


@require_POST
def add(request: PageRequest, pk: int) -> HttpResponse:
    day, _elsewhere = PAGES.opened(request, pk)
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
                grams = adding.grams_asked(asked)
                if grams is None:
                    raise UnreadableAmount(f"“{asked[:40]}” is not a weight up to {MAX_GRAMS:g} g.")
                entry.amount = grams
        else:
            messages.error(request, "Choose a bowl, a recipe or a food from the list.")
            return PAGES.answer(request, day)
    except UnreadableGuess as error:
        messages.error(request, f"{error} It was: {data.get('out', '')[:400]}")
        return PAGES.answer(request, day)
    except UnreadableAmount as error:
        messages.error(request, f"{name} was not added: {error}")
        return PAGES.answer(request, day)
    try:
        with day.changing(*asked_by(request)) as day:
            plan_dish(entry, request.practice)
            entry.save()
    except StaleSave as error:
        return PAGES.stale(request, error.current, f"add {name}")
    return PAGES.answer(request, day)


@require_POST
def change(request: PageRequest, pk: int, entry: int) -> HttpResponse:
    day, _elsewhere = PAGES.opened(request, pk)
    row = day.entries.select_related("bowl", "recipe", "planned").filter(pk=entry).first()
    if row is None:
        messages.error(request, "That is no longer in the day: somebody took it out.")
        return PAGES.answer(request, day, status=409)
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
            return PAGES.answer(request, day, errors={row.pk: (typed, str(error))})
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
        return PAGES.stale(request, error.current, typed or "a change of one line", errors)
    return PAGES.answer(request, day)
