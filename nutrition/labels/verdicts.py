"""What can be said of a claim."""

HOLDS, FAILS, OPEN = "holds", "does not hold", "cannot be told"
