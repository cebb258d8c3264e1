"""The one change that is agreed on, written into the plan, and what became of it."""
