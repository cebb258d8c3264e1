"""What is asked of the core as plain data, and what it answers: each declared once as a typed
structure, read from JSON, refused by its field, and published as a schema."""
