"""Changes that are offered beside something, and taken with one click: portions, swaps."""
