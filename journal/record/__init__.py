"""A client's record as the core reads it."""
