"""The people of a practice: how they come in, sign in, are known again, and leave."""
