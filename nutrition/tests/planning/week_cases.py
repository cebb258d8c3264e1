"""Weeks made from the food table by a seed, and the same for scipy's MILP (HiGHS)."""

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import lil_matrix

from nutrition.composition.foods import food_table
from nutrition.composition.helpings import FIRST_HELPING_G
from nutrition.planning.bounds import besides, brings, day_bounds, week_bounds
from nutrition.planning.rotation import pattern_of
from nutrition.planning.week import Candidate, Prepared, Slot, Week, Wishes
from nutrition.targets.aims import aims_for
from nutrition.targets.day import day_targets
from nutrition.targets.person import Person
from nutrition.targets.schools import schools
from nutrition.targets.watched_targets import watched_keys

MEALS = ("breakfast", "lunch", "dinner", "snack")
FOODS = [
    food for food in food_table() if food.role in FIRST_HELPING_G and food.per_100_g("energy_kcal")
]
PEOPLE = (
    ({"sex": "female", "age_years": 40, "height_cm": 168, "weight_kg": 70}, "balanced_plate"),
    (
        {"sex": "male", "age_years": 45, "height_cm": 183, "weight_kg": 104, "goal": "lose"},
        "light_starchy",
    ),
    (
        {"sex": "male", "age_years": 34, "height_cm": 188, "weight_kg": 86, "goal": "muscle"},
        "strength",
    ),
    ({"sex": "female", "age_years": 38, "height_cm": 170, "weight_kg": 72}, "greens_beans_seeds"),
)


def aims_of(seed):
    """The aims of somebody's day: what is watched, and what is firm."""
    row, code = PEOPLE[seed % len(PEOPLE)]
    person, school = Person(**row), schools()[code]
    day = day_targets(person, school, ())
    aims = aims_for(day, watched_keys(person, school, ()))
    return tuple(aim for aim in aims if aim.weight > 0)


def dish(rng, key, kinds, keys, most):
    """A dish of five foods, of 250 to 700 kcal."""
    some = [FOODS[int(at)] for at in rng.choice(len(FOODS), 5, replace=False)]
    grams = [FIRST_HELPING_G[food.role] * rng.uniform(0.4, 1.0) for food in some]
    kcal = sum(
        (food.per_100_g("energy_kcal") or 0.0) * g / 100
        for food, g in zip(some, grams, strict=True)
    )
    by = float(np.clip(rng.uniform(250, 700) / max(kcal, 1.0), 0.3, 3.0))
    amounts = {
        one: sum(
            (food.per_100_g(one) or 0.0) * g * by / 100 for food, g in zip(some, grams, strict=True)
        )
        for one in keys
    }
    return Candidate(
        key=key,
        name=f"dish {key}",
        kinds=kinds,
        amounts=amounts,
        grams=sum(grams) * by,
        most=most,
        plants=frozenset(food.name.split(",")[0] for food in some),
    )


def week(seed, days=7, meals=4, count=40, most=2.0, everywhere=False, batches=True, wishes=None):
    """A week of so many meals a day; of the dishes three in four are cooked in batches."""
    rng = np.random.default_rng(seed)
    aims = aims_of(seed)
    keys = {"energy_kcal", *(aim.key for aim in aims)} - {"kcal_per_gram"}
    kinds = [f"kind {n}" for n in range(meals)]
    candidates, prepared = [], []
    for n in range(count):
        own = frozenset(kinds if everywhere else [kinds[n % meals]])
        one = dish(rng, f"d{n}", own, keys, most)
        if batches and n % 4 != 3:
            made = Prepared(
                key=f"pot {n}",
                name=one.name,
                least=float(rng.choice([2.0, 2.0, 3.0])),
                keeps=int(rng.choice([2, 3, 3, 4])),
                freezes=bool(rng.random() < 0.4),
            )
            prepared.append(made)
            one = Candidate(**{**one.__dict__, "parts": {made.key: 1.0}})
        candidates.append(one)
    slots = tuple(
        Slot(
            key=f"{day}-{meal}",
            day=day,
            meal=MEALS[meal % len(MEALS)],
            kind=kinds[meal],
            varies=True,
            repeats=False,
        )
        for day in range(days)
        for meal in range(meals)
    )
    return Week(
        days=days,
        slots=slots,
        candidates=tuple(candidates),
        prepared=tuple(prepared),
        aims=aims,
        cook_days=frozenset({-1, 2} if days > 3 else {0}),
        wishes=Wishes() if wishes is None else wishes,
    )


def highs(week, seconds):
    """The least by which energy and protein are beyond what is allowed, by scipy's MILP, where hard
    limits and every rule of the rotation are kept: the value found and the bound under which none
    is, in shares of an aim, summed over the days and so many times the week. None where it finds no
    week in time."""
    rows, columns = [], []

    def column(high, whole=True, cost=0.0):
        columns.append((high, whole, cost))
        return len(columns) - 1

    def row(terms, low, high):
        rows.append((terms, low, high))

    days = week.planned_days
    amounts, stands = {}, {}
    for slot in week.slots:
        for one in week.candidates:
            if not slot.takes(one):
                continue
            here, steps = column(1), column(len(one.counts) - 1)
            row({steps: 1.0, here: -(len(one.counts) - 1.0)}, -np.inf, 0.0)
            amounts[slot.key, one.key] = {here: one.counts[0], steps: one.step}
            stands[slot.key, one.key] = here
        row({at: 1.0 for (key, _one), at in stands.items() if key == slot.key}, 1.0, 1.0)
    pattern = pattern_of(week)
    for rule in pattern.at_most:
        for one in week.candidates:
            there = [stands[key, one.key] for key in rule.slots if (key, one.key) in stands]
            if there and rule.means(one):
                row(dict.fromkeys(there, 1.0), 0.0, rule.most)
    for rule in pattern.at_least:
        present = []
        for one in week.candidates:
            there = [stands[key, one.key] for key in rule.slots if (key, one.key) in stands]
            if there:
                at = column(1)
                row({at: 1.0} | dict.fromkeys(there, -1.0), -np.inf, 0.0)
                present.append(at)
        row(dict.fromkeys(present, 1.0), rule.least, np.inf)

    def held(bound, some, cost):
        terms = {}
        for day in some:
            for slot in week.slots_of(day):
                for one in week.candidates:
                    for at, each in amounts.get((slot.key, one.key), {}).items():
                        by = each * brings(one, bound) / bound.per / len(some)
                        terms[at] = terms.get(at, 0.0) + by
        if cost is not None:
            terms[column(np.inf, whole=False, cost=cost)] = 1.0 if bound.least else -1.0
        limit = (bound.limit - besides(week, bound)) / bound.per
        row(terms, limit if bound.least else -np.inf, np.inf if bound.least else limit)

    for day in days:
        for bound in day_bounds(week, day).firm:
            held(bound, [day], None)
        for bound in day_bounds(week, day).leading:
            held(bound, [day], 1.0)
    for bound in week_bounds(week).leading:
        held(bound, days, float(len(days)))
    matrix = lil_matrix((len(rows), len(columns)))
    for at, (terms, _low, _high) in enumerate(rows):
        for where, value in terms.items():
            matrix[at, where] = value
    found = milp(
        [cost for _high, _whole, cost in columns],
        integrality=[int(whole) for _high, whole, _cost in columns],
        bounds=Bounds(0.0, [high for high, _whole, _cost in columns]),
        constraints=LinearConstraint(
            matrix.tocsr(), [low for _t, low, _h in rows], [high for _t, _l, high in rows]
        ),
        options={"time_limit": seconds, "mip_rel_gap": 1e-4},
    )
    return None if found.x is None else (found.fun, found.mip_dual_bound)
