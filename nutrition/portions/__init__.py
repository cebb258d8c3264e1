"""Portions that meet targets: the problem, how it is solved, and what stands in the way."""
