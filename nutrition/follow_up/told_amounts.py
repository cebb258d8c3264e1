"""How far an amount that somebody told may be off, as least and most of what was meant. [share]"""

# Eaten "as planned", by who did not weigh it. Common practice, no source.
AS_PLANNED = (0.9, 1.1)
# By eye, half of something may be two fifths or three. Common practice, no source.
BY_EYE = (0.8, 1.2)
# A dish that is named with no share was eaten as it is served, more or less: half as far as where
# it was said how much. Common practice, no source.
AS_SERVED, NAMED = (0.9, 1.1), (0.8, 1.2)
# Under or over so much of what was planned it is said to be less, or more. Common practice, no
# source.
SAME_AS_PLANNED = (0.95, 1.05)
# "Less", told in a touch and without how much, is half, give or take half of that: a quarter to
# three quarters. Common practice, no source.
IN_A_TOUCH = {"planned": 1.0, "less": 0.5, "none": 0.0}
LESS = (0.5, 1.5)
