"""Recipes as they are written, reckoned while one types, kept in versions, cooked from."""
