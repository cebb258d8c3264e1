"""Anything found from anywhere, and where a number of a page comes from."""
