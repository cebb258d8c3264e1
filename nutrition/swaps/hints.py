"""What would help where portions cannot meet the targets, with what the library knows: staples to
add, other forms of a food, and what may take the place of one."""

from __future__ import annotations

from nutrition.portions.added_to_a_meal import added_to
from nutrition.portions.hints import Hint, hints
from nutrition.portions.problem import Problem
from nutrition.portions.solver import Answer
from nutrition.swaps.library import other_forms, stand_ins


def helping(problem: Problem, answer: Answer) -> list[Hint]:
    """The single changes that help most; none that the problem's gate holds back."""
    gate = problem.gate
    return hints(
        problem,
        answer,
        added_to(problem),
        lambda food: other_forms(food, gate),
        lambda food: stand_ins(food, gate),
    )
