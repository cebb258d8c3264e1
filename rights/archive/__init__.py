"""Everything about one client, or of a practice, in one file that a person and a machine can read,
and back."""
