"""The shopping list of a week, and what the kitchen has."""
