"""Visit notes."""
