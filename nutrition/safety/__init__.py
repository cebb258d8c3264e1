"""What this person must not have, and what to warn about: the gate stands before everything
that proposes."""
