"""How it went: where the weight is going, what was eaten, why it stalls, and who needs a look."""
