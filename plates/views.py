"""Two plates, or three, side by side; the ladder; the lesson."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any
from urllib.parse import urlencode

from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse

from clients.models import Client
from clients.pages.context import PageRequest
from clients.plan.gate import gate_of
from clients.plan.in_force import plan_of
from clients.plan.marks import Marked, marked_dish
from nutrition.composition.nutrients import NUTRIENT
from nutrition.composition.portion import Dish
from nutrition.insight import indices
from nutrition.insight.comparison import (
    BASES,
    CALORIES,
    HUNDRED,
    PROTEIN,
    SAME_IN,
    SERVING,
    SPOON_ML,
    Difference,
    NotComparable,
    at_basis,
    differences,
    heap_words,
)
from nutrition.insight.density_ladder import USUAL_KCAL, ladder, steps
from nutrition.written.typed_amounts import UnreadableAmount
from nutrition.written.units import milliliters
from paper.sheets import Paper, answer
from plates.models import OldDish
from plates.pairs import pairs
from plates.picture import ladder_drawing, rounds
from plates.subjects import found, plate_for, usual_foods
from practice.removal import offered_back
from webkit.request_values import number_in, short

MOST_PLATES = 6
NUMBERS = ("no", "one", "two", "three", "four", "five", "six")
# What the table shows before "all"; and the lesson, of two plates or of three, so that it is one
# printed page.
FIRST_SHOWN, LESSON_SHOWN = 8, {2: 6, 3: 4}
RIM_KEYS = (
    "energy_kcal",
    "protein_g",
    "fiber_g",
    "sodium_mg",
    "potassium_mg",
    "phosphorus_mg",
    "fat_g",
)
LEAST_KCAL, MOST_KCAL = 20.0, 3000.0
MOST_RUNGS, MOST_OLD = 26, 20
# What may be below zero: a share of it says nothing.
SIGNED = ("pral_meq",)
MOST_IN_LESSON = 3
# More than so many times as much says nothing: the first has next to none.
MOST_TIMES = 10.0


def _keys(request: PageRequest, most: int) -> list[str]:
    """What is asked for, each once."""
    return _all_keys(request)[:most]


def _all_keys(request: PageRequest) -> list[str]:
    return list(dict.fromkeys(key[:120] for key in request.GET.getlist("with")[:100]))


@dataclass(frozen=True)
class Asked:
    """The plates that were asked for, what is wrong with an amount that was typed, by key, and what
    is not shown, in words."""

    plates: list[Dish]
    wrong: dict[str, str]
    left_out: list[str]


def _asked(request: PageRequest, most: int) -> Asked:
    plates: list[Dish] = []
    wrong: dict[str, str] = {}
    left_out: list[str] = []
    for key in _all_keys(request):
        try:
            plate = plate_for(key, request.practice.measures)
        except UnreadableAmount as error:
            wrong[key] = str(error)
            plate = plate_for(key.partition("~")[0])
            plate = None if plate is None else replace(plate, key=key)
        if plate is None:
            left_out.append("One that was asked for is no longer there, or has nothing in it yet.")
        elif len(plates) < most:
            plates.append(plate)
        else:
            left_out.append(
                f"{plate.name} is not shown: {NUMBERS[most]} plates stand side by side at most. "
                f"Take one away first."
                if most < len(NUMBERS)
                else f"{plate.name} is not shown: the ladder holds {most}."
            )
    return Asked(plates, wrong, left_out)


def _address(name: str, keys: list[str], **more: str) -> str:
    return f"{reverse(name)}?{urlencode([('with', key) for key in keys] + list(more.items()))}"


def compared(request: PageRequest, most: int = MOST_PLATES) -> dict[str, Any]:
    """So many plates brought to a basis, their rounds, and what differs."""
    # Whole: all that the page shows, a name a line.
    looked, client = _asked(request, most), request.for_client
    plates = looked.plates
    plan = plan_of(client)
    gate = gate_of(plan)
    basis = request.GET.get("basis", SERVING)
    basis = basis if basis in BASES else SERVING
    asked = number_in(request.GET.get("kcal", ""), (LEAST_KCAL, MOST_KCAL))
    kcal = asked if basis == CALORIES else None
    rim = request.GET.get("rim", "energy_kcal")
    rim = rim if rim in RIM_KEYS else "energy_kcal"
    problem = ""
    try:
        spoon_ml = milliliters("tbsp", request.practice.measures) or SPOON_ML
        shown = at_basis(plates, basis, kcal, spoon_ml)
    except NotComparable as error:
        shown, basis, problem = plates, SERVING, str(error)
    matter = [row.target.key for row in plan.watched]
    aims = {key: row.target.aim for key, row in plan.rows.items()}
    rows = (
        [row for row in differences(shown, aims, matter) if row.key != SAME_IN.get(basis)]
        if len(shown) > 1
        else []
    )
    keys = [plate.key for plate in plates]
    return {
        "client": client,
        "plates": [
            {
                "plate": plate,
                "key": plate.key,
                "amount": plate.key.partition("~")[2],
                "wrong": looked.wrong.get(plate.key, ""),
                # what the client must not have is marked, whatever it is compared with
                "marked": marked_dish(gate, plate, plate.foods) if client else None,
                "drunk": 0.0 if plate.profile.only_drunk else plate.profile.drunk_g,
                "drunk_kcal": plate.profile.drunk_kcal,
                "label": f"{plate.name}: lines by volume, at one scale with the other",
                "round": drawing,
                "density": indices.kcal_per_gram(plate.profile),
                "without": _address(
                    "plates:compare", [key for key in keys if key != plate.key], basis=basis
                ),
            }
            for plate, drawing in zip(shown, rounds(shown, rim), strict=True)
        ],
        "rows": [_row(row, [plate.name for plate in shown[1:]]) for row in rows],
        "first_shown": FIRST_SHOWN,
        "basis": basis,
        "kcal": kcal,
        "bases": BASES.items(),
        "basis_words": BASES[basis] + (f", {kcal:.0f} kcal" if kcal else ""),
        "rim": rim,
        "rim_keys": RIM_KEYS,
        "keys": keys,
        "problem": problem,
        "left_out": looked.left_out,
        "many": NUMBERS[len(plates)] if len(plates) > 2 else "two",
        "room": MOST_PLATES - len(keys),
        "ladder_url": _address("plates:ladder", keys),
        "lesson_url": _address(
            "plates:lesson", keys[:MOST_IN_LESSON], basis=CALORIES if basis == SERVING else basis
        ),
        "calories_url": _address(
            "plates:compare", keys, basis=SERVING if basis == CALORIES else CALORIES
        ),
    }


def _row(row: Difference, names: Sequence[str]) -> dict[str, Any]:
    """A difference with bars: each amount's share of the largest."""
    most = max(abs(amount.amount) for amount in row.amounts) or 1.0
    return {
        "difference": row,
        "bars": [(amount, max(amount.amount, 0.0) / most) for amount in row.amounts],
        "against": [
            {
                "one": one,
                "name": name,
                "size": abs(one.by),
                "word": "more" if one.by > 0 else "less",
                "share": "" if row.key in SIGNED else _share(one.by, row.amounts[0].amount),
                "prints": bool(f"{abs(one.by):.{NUTRIENT[row.key].decimals}f}".strip("0.")),
            }
            for name, one in zip(names, row.against, strict=True)
        ],
    }


def _share(by: float, first: float) -> str:
    """How much more or less than the first, in words; empty where the first has next to nothing, or
    an index that has no zero."""
    if first <= 0 or by / first > MOST_TIMES:
        return ""
    return (
        f"{_times(by / first + 1)} times as much"
        if by >= first
        else f"{abs(by) / first * 100:.0f} %"
    )


def _times(times: float) -> str:
    """How many times, to no more figures than mean something."""
    return f"{times:.1f}" if times < 3 else f"{times:.0f}"


def compare(request: PageRequest) -> HttpResponse:
    """Anything beside anything. `with` names the plates, `basis` what they are brought to, `q` what
    is looked for."""
    if "amount" in request.GET:
        return redirect(_with_amounts(request))
    context = compared(request) | _found(request, "plates:compare", MOST_PLATES)
    if not context["plates"]:
        context["pairs"] = [
            (words, _address("plates:compare", keys)) for words, keys in pairs(request.for_client)
        ]
    old = OldDish.objects.filter(client=request.for_client)
    context |= {
        "old_dishes": [
            (dish, _address("plates:compare", [*context["keys"], f"was-{dish.pk}"]))
            for dish in old[:MOST_OLD]
        ],
        "removed": offered_back(OldDish.with_removed).select_related("removed_by"),
    }
    return render(
        request,
        "plates/_found.html" if request.htmx and "q" in request.GET else "plates/compare.html",
        context,
    )


def _with_amounts(request: PageRequest) -> str:
    """The address of the same plates with the amounts that were typed for them."""
    keys, amounts = request.GET.getlist("with"), request.GET.getlist("amount")
    pairs_of = zip(keys, [*amounts, *[""] * len(keys)], strict=False)
    named = [
        f"{key.partition('~')[0]}~{amount.strip()[:20]}"
        if amount.strip()
        else key.partition("~")[0]
        for key, amount in pairs_of
    ]
    kept = {name: request.GET[name] for name in ("basis", "rim", "kcal") if request.GET.get(name)}
    return _address("plates:compare", named, **kept)


def marks_of(keys: Sequence[str], client: Client | None) -> dict[str, Marked]:
    """What is to be known of each of these before it is chosen for a client; nothing for nobody."""
    if client is None:
        return {}
    gate, out = gate_of(plan_of(client)), {}
    for key in keys:
        plate = plate_for(key)
        if plate is not None:
            out[key] = marked_dish(gate, plate, plate.foods)
    return out


def _found(request: PageRequest, where: str, most: int) -> dict[str, Any]:
    """What can be put beside what is asked for, for what was typed."""
    query = short(request.GET, "q")
    keys, basis = _keys(request, most), request.GET.get("basis", SERVING)
    matches = found(query, request.for_client) if query else []
    marks = marks_of([key for key, _name, _kind in matches], request.for_client)
    options = [
        (_address(where, [*keys, key], basis=basis), name, kind, marks.get(key))
        for key, name, kind in matches
        if key not in keys
    ]
    return {"q": query, "found": options}


def lesson(request: PageRequest) -> HttpResponse:
    return answer(request, lesson_paper(request))


def lesson_paper(request: PageRequest) -> Paper:
    """One printable page for a client: the rounds at one scale, the portions in words, the few
    differences that matter."""
    context = compared(request, MOST_IN_LESSON)
    client = context["client"]
    harm = client is not None and client.numbers_hidden
    hidden = client.kept_off if client is not None else frozenset()
    context["rows"] = [row for row in context["rows"] if row["difference"].key not in hidden][
        : LESSON_SHOWN.get(len(context["plates"]), 0)
    ]
    return Paper(
        title=_lesson_title(context, harm),
        template="plates/lesson.html",
        context=context | {"without_calories": harm},
        back=(
            _address("plates:compare", context["keys"], basis=context["basis"]),
            "Back to the plates",
        ),
        whom=f"for {client.name}" if client else "",
        kind="lesson",
    )


def _lesson_title(context: dict[str, Any], harm: bool) -> str:
    """What the lesson is about; the heaps by name where they differ, or else by volume."""
    plates = [row["plate"] for row in context["plates"]]
    heaps = [heap_words(plate.volume_ml) for plate in plates]
    sizes = " or ".join(
        heaps
        if len(set(heaps)) == len(heaps)
        else [f"{plate.volume_ml:,.0f} mL" for plate in plates]
    )
    what = {
        CALORIES: "The same energy" if harm else "The same calories",
        PROTEIN: "The same protein",
        HUNDRED: "The same weight",
    }
    return f"{what.get(context['basis'], 'As served')}: {sizes}"


def ladder_page(request: PageRequest) -> HttpResponse:
    """A client's usual foods and what is proposed, by calorie density; and the portion that so many
    calories are."""
    client, looked = request.for_client, _asked(request, MOST_RUNGS)
    proposed, gate = looked.plates, gate_of(plan_of(client))
    kcal = min(
        max(number_in(request.GET.get("kcal", USUAL_KCAL)) or USUAL_KCAL, LEAST_KCAL), MOST_KCAL
    )
    own = [plate.key for plate in proposed]
    usual = [plate for plate in usual_foods(client) if plate.key not in own] if client else []
    rungs = ladder([*proposed, *usual][:MOST_RUNGS], kcal)
    context = {
        "client": client,
        "kcal": kcal,
        "rungs": rungs,
        "rows": [
            (rung, marked_dish(gate, rung.plate, rung.plate.foods) if client else None)
            for rung in rungs
        ],
        "wrong": list(looked.wrong.values()),
        "left_out": looked.left_out,
        "steps": steps(rungs)[:FIRST_SHOWN],
        "drawing": ladder_drawing(rungs, own),
        "keys": own,
        "compare_url": _address("plates:compare", own[:MOST_PLATES]),
    }
    template = "plates/_found.html" if request.htmx and "q" in request.GET else "plates/ladder.html"
    return render(request, template, context | _found(request, "plates:ladder", MOST_RUNGS))
