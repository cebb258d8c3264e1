"""A quick look for good portions: steps up and down, alone and in pairs, as long as something gets
better."""

from __future__ import annotations

import numpy as np

from nutrition.portions.problem import Grid, npt_ints
from nutrition.portions.work import Work
from nutrition.targets.aim import SLACK

# Each comes first by far: a broken limit before a miss, a miss before a distance, a distance before
# a change.
BROKEN, MISSED, DISTANT, CHANGED = 1e12, 1e6, 1.0, 1e-7
PAIRS = ((1, -1), (1, 1), (-1, -1), (2, -1), (-2, 1))
SINGLES = (1, -1, 2, -2, 4, -4)
MOST_PAIRED = 24


def moves(parts: int, rng: np.random.Generator) -> np.ndarray[tuple[int, int], np.dtype[np.int64]]:
    """Steps up and down of one part, and of two together, a row each."""
    rows = []
    for i in range(parts):
        for by in SINGLES:
            rows.append({i: by})
    paired = (
        list(range(parts))
        if parts <= MOST_PAIRED
        else sorted(rng.choice(parts, MOST_PAIRED, replace=False).tolist())
    )
    for i in paired:
        for j in paired:
            rows += [{i: a, j: b} for a, b in PAIRS if i != j and (a != b or i < j)]
    out = np.zeros((len(rows), parts), dtype=np.int64)
    for n, row in enumerate(rows):
        for i, by in row.items():
            out[n, i] = by
    return out


def score(grid: Grid, steps: npt_ints) -> tuple[float, float, float, float]:
    """What counts, in its order: limits broken, misses, distances, change. The smaller the
    better."""
    broken = sum(max(float(row.per_step @ steps) - row.most - SLACK, 0.0) for row in grid.rows)
    return broken, grid.violation(steps), grid.deviation(steps), grid.change(steps)


def search(grid: Grid, work: Work, starts: int = 8, begin: npt_ints | None = None) -> npt_ints:
    """The best steps found within some work from the practitioner's own portions, or `begin`, and
    random ones (seed 0)."""
    own = grid.own_steps()
    if not len(grid.free):
        return own
    rng = np.random.default_rng(0)
    around = moves(len(grid.free), rng)
    effect = grid.per_step @ around.T
    limits = np.array([row.per_step for row in grid.rows]).reshape(len(grid.rows), len(grid.free))
    most = np.array([row.most for row in grid.rows]) + SLACK
    limit_effect = limits @ around.T
    low, high = (
        np.where(np.isnan(bound), sign * np.inf, bound)
        for bound, sign in ((grid.low, -1), (grid.high, 1))
    )
    weight, far, aim = grid.weight[:, None], grid.far[:, None], grid.aim[:, None]
    cells = around.shape[0] * (len(grid.soft) + len(grid.rows) + len(grid.free))
    best: tuple[float, npt_ints] | None = None
    for start in range(starts):
        steps = (
            (begin if begin is not None else own) if start == 0 else rng.integers(0, grid.steps + 1)
        )
        value = np.inf
        enough = True
        while enough:
            enough = work.looked_at(cells)
            at = (grid.start + grid.per_step @ steps)[:, None] + effect
            missed = np.maximum(low[:, None] - at, 0.0) + np.maximum(at - high[:, None], 0.0)
            missed[missed < SLACK] = 0.0
            broken = np.maximum((limits @ steps)[:, None] + limit_effect - most[:, None], 0.0).sum(
                axis=0
            )
            there = steps + around
            change = (np.abs(grid.least + there * grid.step_g - grid.own) / grid.step_g).sum(axis=1)
            found = (
                BROKEN * broken
                + MISSED * (weight * missed).sum(axis=0)
                + DISTANT * (far * np.abs(at - aim)).sum(axis=0)
            )
            found += CHANGED * change
            found[((there < 0) | (there > grid.steps)).any(axis=1)] = np.inf
            pick = int(found.argmin())
            if not found[pick] < value - 1e-10:
                break
            value, steps = float(found[pick]), there[pick]
        if best is None or value < best[0] or not np.isfinite(best[0]):
            best = (value, steps)
        if not enough:
            break
    assert best is not None
    return min((best[1], own), key=lambda found: score(grid, found))
