"""The sauce bench: a sauce of the practice and the bowls it must cover."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from django.http import HttpResponse, QueryDict
from django.shortcuts import get_object_or_404, render

from bowls.bowl import reckon_bowl
from bowls.forms import BenchForm
from bowls.models import Bowl
from changes.offers import token_for
from clients.pages.context import PageRequest
from clients.plan.gate import gate_of
from clients.plan.in_force import plan_of
from nutrition.composition.foods import Food, food_table
from nutrition.composition.nutrients import NUTRIENT
from nutrition.recipe.reckoning import Facts
from nutrition.recipe.sauce_bench import (
    USUAL_PER_BOWL_ML,
    Covered,
    Cut,
    Rich,
    Sauce,
    cover,
    cut,
    poured_ml,
    rich_lines,
    to_density,
)
from nutrition.swaps.ranking import THINNERS
from nutrition.swaps.swap import Step, kitchen
from recipes.changeable import RecipeChanges
from recipes.facts import facts_of
from recipes.models import Recipe
from webkit.request_values import number_in

# Thinned by these shares of its volume, for the table.
SHARES = (0.0, 0.25, 0.5, 1.0)


@dataclass(frozen=True)
class Change:
    """Something to write into the recipe: in words, with what is sent to take it."""

    words: str
    token: str


@dataclass(frozen=True)
class RichRow:
    rich: Rich
    cut: Cut
    left: str
    token: str


def _thin(recipe: Recipe, covered: Covered, thinner: Food, why: str) -> Change | None:
    if covered.added_g < 0.5:
        return None
    grams, measure = kitchen(thinner, covered.added_g, recipe.measures)
    step = Step(id="", kind="thin", food=thinner, grams=grams, words="", measure=measure)
    return Change(
        f"{measure or f'{grams:.0f} g'} {thinner.name.lower()}",
        token_for(RecipeChanges.key_of(recipe), recipe.version, [step], why),
    )


def _rich(recipe: Recipe, facts: Facts, sauce: Sauce, data: dict) -> list[RichRow]:
    """What of each rich line can go, its room made up with the thinner."""
    out = []
    for rich in rich_lines(facts, data["key"]):
        found = cut(
            facts, sauce, rich, data["bowls"], data["per_bowl_ml"], data["key"], data["most"]
        )
        food = facts.lines[rich.at].food
        left, measure = (
            kitchen(food, rich.grams - found.grams, recipe.measures)
            if food is not None and rich.grams - found.grams > 0.05
            else (0.0, "")
        )
        token = ""
        if found.share > 0:
            steps = [
                Step(
                    id=str(rich.at),
                    kind="less" if left else "out",
                    food=food,
                    grams=left,
                    words="",
                    measure=measure,
                )
            ]
            if found.made_up_ml > 1:
                grams, added = kitchen(
                    sauce.thinner, found.made_up_ml * sauce.thinner_g_per_ml, recipe.measures
                )
                steps.append(
                    Step(
                        id="", kind="thin", food=sauce.thinner, grams=grams, words="", measure=added
                    )
                )
            unit = NUTRIENT[data["key"]].unit
            why = (
                f"less {rich.name.lower()}, made up with {sauce.thinner.name.lower()}: at "
                f"most {data['most']:g} {unit} a bowl"
            )
            token = token_for(RecipeChanges.key_of(recipe), recipe.version, steps, why)
        stays = (measure or f"{left:.0f} g") if found.share < 1 else "none"
        out.append(RichRow(rich, found, stays, token))
    return out


def _wearing(recipe: Recipe) -> list[dict[str, object]]:
    """The bowls that have this sauce, with what it costs each now."""
    out = []
    for bowl in Bowl.objects.filter(parts__recipe=recipe).distinct():
        reckoned = reckon_bowl(bowl)
        part = next(part for part in reckoned.parts if part.row.recipe_id == recipe.pk)
        share = part.volume_ml / reckoned.volume_ml if reckoned.volume_ml else 0.0
        out.append({"bowl": bowl, "part": part, "share": share})
    return out


def _asked(query: QueryDict, usual: dict[str, Any]) -> dict[str, Any] | None:
    """What is asked for, what was left out as usual; None where nothing is asked. A link that names
    only the limit and the room of a portion is enough."""
    if not {"bowls", "key"} & set(query):
        return None
    given = {name: value for name, value in usual.items() if value is not None} | query.dict()
    room = number_in(given["per_bowl_ml"])
    if "bowls" not in query and room:
        given["bowls"] = max(round(usual["volume_ml"] / room), 1)
    return given


def bench(request: PageRequest, pk: int) -> HttpResponse:
    """Thinner by how much, to what density, how many kcal and grams of fat a bowl, and how much of
    what is rich can go."""
    # Whole: all that the bench shows, a name a line.
    recipe = get_object_or_404(Recipe, pk=pk)
    facts, client = facts_of(recipe), request.for_client
    plan = plan_of(client)
    gate = gate_of(plan)
    thinners = [food for food in map(food_table().__getitem__, THINNERS) if not gate.why_not(food)]
    context: dict[str, Any] = {"recipe": recipe, "client": client, "facts": facts}
    if facts.batch.grams <= 0:
        return render(
            request,
            "bowls/sauce.html",
            context | {"problem": "It weighs nothing yet: settle its lines first."},
        )
    wearing = _wearing(recipe)
    poured = max(round(poured_ml(facts)), 1)
    usual: dict[str, Any] = {
        "volume_ml": poured,
        "bowls": max(round(poured / USUAL_PER_BOWL_ML), 1),
        "per_bowl_ml": USUAL_PER_BOWL_ML,
        "thinner": thinners[0].slug,
        "key": "fat_g",
        "most": None,
        "density": None,
    }
    form = BenchForm(_asked(request.GET, usual), thinners=thinners, initial=usual)
    data = form.cleaned_data if form.is_valid() else usual
    volume = data["volume_ml"]
    sauce = Sauce(facts.batch, volume, food_table()[data["thinner"]])
    covered = cover(sauce, data["bowls"], data["per_bowl_ml"])
    unthinned = cover(sauce, data["bowls"], data["per_bowl_ml"], 0.0)
    context |= {
        "form": form,
        "volume": volume,
        "by_weight": facts.measured_ml is None and volume == poured,
        "sauce": sauce,
        "covered": covered,
        "reaches": unthinned.volume_ml >= data["bowls"] * data["per_bowl_ml"],
        "now_density": unthinned.density,
        "thin": _thin(recipe, covered, sauce.thinner, f"thinned to cover {data['bowls']} bowls"),
        "table": [
            (
                share,
                cover(
                    sauce,
                    volume * (1 + share) / data["per_bowl_ml"],
                    data["per_bowl_ml"],
                    volume * share,
                ),
            )
            for share in SHARES
        ],
        "wearing": wearing,
        "per_bowl_ml": data["per_bowl_ml"],
    }
    if data["density"]:
        added = to_density(sauce, data["density"])
        context |= {"density": data["density"], "density_reached": added is not None}
        if added is not None:
            at = cover(sauce, (volume + added) / data["per_bowl_ml"], data["per_bowl_ml"], added)
            why = f"thinned to {data['density']:g} kcal per gram"
            context |= {"at_density": at, "thin_density": _thin(recipe, at, sauce.thinner, why)}
    if data["most"] is not None:
        context |= {
            "rich": _rich(recipe, facts, sauce, data),
            "key": data["key"],
            "most": data["most"],
        }
    return render(
        request, "bowls/sauce.html", context, status=400 if form.is_bound and form.errors else 200
    )
