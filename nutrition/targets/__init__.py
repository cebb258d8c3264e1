"""Who it is for and what they need: a person, what each voice says of each target, which is in
force, and the day shared out over its meals."""
