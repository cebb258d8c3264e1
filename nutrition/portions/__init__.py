"""Portions that meet targets: the problem, how it is solved, and what stands in the way."""

from nutrition.portions.obstacles import misses
from nutrition.portions.problem import BadProblem, Problem
from nutrition.portions.proposals import Proposal
from nutrition.portions.solver import Answer, balance
from nutrition.portions.work import Work
from nutrition.portions.would_help import hints

__all__ = [
    "Answer",
    "BadProblem",
    "Problem",
    "Proposal",
    "Work",
    "balance",
    "hints",
    "misses",
]
