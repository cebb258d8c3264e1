"""A shelf of dishes to begin with: read, and copied into a practice that asks for them."""
