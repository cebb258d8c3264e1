"""Balance problems made from the food table by a seed, the same problem enumerated, and the same
for scipy's MILP."""

from dataclasses import replace
from itertools import product

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp

from nutrition.composition.foods import food_table
from nutrition.composition.helpings import FIRST_HELPING_G
from nutrition.composition.portion import Limits, food_portion
from nutrition.portions.problem import Grid, Problem
from nutrition.portions.serving_limits import limits_around
from nutrition.portions.serving_rules import servable
from nutrition.targets.aim import Aim

KEYS = (
    "energy_kcal",
    "protein_g",
    "fiber_g",
    "sodium_mg",
    "potassium_mg",
    "phosphorus_mg",
    "iron_mg",
    "calcium_mg",
    "fat_g",
    "zinc_mg",
    "magnesium_mg",
    "vitamin_c_mg",
    "carbohydrate_g",
    "sugars_g",
    "saturated_fat_g",
    "folate_ug",
    "vitamin_k_ug",
    "selenium_ug",
    "copper_mg",
    "niacin_mg",
    "riboflavin_mg",
    "thiamin_mg",
    "vitamin_e_mg",
    "manganese_mg",
    "ala_g",
)
FOODS = [
    food for food in food_table() if food.role in FIRST_HELPING_G and food.per_100_g("energy_kcal")
]


def problem(seed, parts, targets, most_choices=None, hard=0, far=False):
    """Foods, portions in kitchen-sized steps, and targets near to what some of the portions bring;
    `far` makes them collide."""
    rng = np.random.default_rng(seed)
    made = []
    for i, at in enumerate(rng.choice(len(FOODS), parts, replace=False)):
        food = FOODS[int(at)]
        grams = round(FIRST_HELPING_G[food.role] * rng.uniform(0.6, 1.4))
        limits = limits_around(servable(food, food.role), grams)
        most = (
            limits.most
            if most_choices is None
            else min(limits.most, limits.least + most_choices * limits.step)
        )
        made.append(
            replace(
                food_portion(food, 100.0, key=f"part-{i}"),
                grams=grams,
                volume_ml=100.0,
                foods=(),
                limits=Limits(least=limits.least, most=most, step=limits.step),
            )
        )
    aims = []
    reached = {
        part.key: part.limits.least + int(rng.integers(0, part.choices + 1)) * part.limits.step
        for part in made
    }
    for n, key in enumerate(KEYS[:targets]):
        total = sum(part.amount(key) * reached[part.key] for part in made)
        aim = max(total * (rng.uniform(0.6, 1.5) if far else rng.uniform(0.9, 1.1)), 1e-3)
        low = aim * rng.uniform(0.85, 0.97) if rng.random() < 0.7 else None
        high = aim * rng.uniform(1.03, 1.2) if rng.random() < 0.7 else None
        if n < hard:
            # what the portions reached keeps these
            low, high = None, total * 1.02 + 1e-6
            aim = min(aim, high)
        aims.append(
            Aim(
                key=key,
                low=low,
                aim=aim,
                high=high,
                weight=float(rng.choice([1, 1, 2, 3])),
                firm_low=n < hard,
                firm_high=n < hard,
            )
        )
    return Problem(parts=tuple(made), aims=tuple(aims))


def by_hand(asked, portions):
    """The sums (2) and (3) for portions, from the definition alone."""
    violation = deviation = 0.0
    for aim in asked.aims:
        key = "energy_kcal" if aim.key == "kcal_per_gram" else aim.key
        total = sum(part.amount(key) * portions[part.key] for part in asked.parts)
        if aim.key == "kcal_per_gram":
            total /= sum(portions.values())
        under = max((aim.low if aim.low is not None else -np.inf) - total, 0.0)
        over = max(total - (aim.high if aim.high is not None else np.inf), 0.0)
        violation += aim.weight * (under + over) / aim.aim
        deviation += aim.weight * abs(total - aim.aim) / aim.aim
    return violation, deviation


def keeps_hard(asked, portions):
    return all(
        aim.high is None
        or sum(part.amount(aim.key) * portions[part.key] for part in asked.parts)
        <= aim.high * (1 + 1e-6)
        for aim in asked.aims
        if aim.firm
    )


def enumerated(asked):
    """The least (2), then the least (3), over all portions there are; None when none keep the hard
    limits."""
    best = None
    for steps in product(*(range(part.choices + 1) for part in asked.parts)):
        portions = {part.key: part.at(n) for part, n in zip(asked.parts, steps, strict=True)}
        if keeps_hard(asked, portions):
            found = by_hand(asked, portions)
            if (
                best is None
                or found[0] < best[0] - 1e-9
                or (abs(found[0] - best[0]) <= 1e-9 and found[1] < best[1])
            ):
                best = found
    return best


def highs(asked, seconds=10.0, both=True):
    """(2), and then (3) with (2) held, by scipy's MILP, which solves with HiGHS; None when no
    portions keep the hard limits.

    Columns: the parts' steps, the misses, and the distances of the targets.
    """
    grid = Grid(asked)
    parts, aims = len(grid.free), len(grid.soft)
    rows, low = [], []

    def at_least(i, sign, bound, column):
        row = np.zeros(parts + 2 * aims)
        row[:parts] = sign * grid.per_step[i]
        if column is not None:
            row[column] = 1.0
        rows.append(row)
        low.append(sign * (bound - grid.start[i]))

    for i, aim in enumerate(wish.aim for wish in grid.soft):
        for bound, sign in ((grid.low[i], 1.0), (grid.high[i], -1.0)):
            if not np.isnan(bound):
                at_least(i, sign, bound, None if aim.firm else parts + i)
        for sign in (1.0, -1.0):
            at_least(i, sign, grid.aim[i], parts + aims + i)
    missed = np.concatenate([np.zeros(parts), grid.weight, np.zeros(aims)])
    distant = np.concatenate([np.zeros(parts + aims), grid.far])
    whole = np.concatenate([np.ones(parts), np.zeros(2 * aims)])
    bounds = Bounds(
        np.zeros(parts + 2 * aims), np.concatenate([grid.steps, np.full(2 * aims, np.inf)])
    )

    def least(cost, *more):
        limits = [LinearConstraint(np.array(rows), np.array(low), np.inf), *more]
        options = {"time_limit": seconds, "mip_rel_gap": 1e-6}
        return milp(cost, constraints=limits, integrality=whole, bounds=bounds, options=options).fun

    violation = least(missed)
    if violation is None or not both:
        return None if violation is None else (violation, None)
    return violation, least(distant, LinearConstraint(missed[None, :], -np.inf, violation + 1e-7))
