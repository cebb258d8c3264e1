"""Bowls: parts in portions against a meal's share of the day, and the sauce bench."""
