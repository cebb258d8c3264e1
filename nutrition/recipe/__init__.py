"""A recipe: what was written, what stands in its brackets, and what it comes to once cooked."""
