"""Cooking: the timeline of a shared stove, the session, what is in the house, the scale."""
