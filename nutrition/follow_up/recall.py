"""A day remembered with somebody's help: what is asked, in which order."""

# The passes of a recall, in their order. Moshfegh et al., Am J Clin Nutr 88:324 (2008): the
# automated multiple-pass method; from memory.
PASSES = (
    ("list", "Quick list", "Everything, as it comes to mind, from waking up. Do not stop them."),
    ("forgotten", "What is forgotten", "Ask each of these once."),
    ("time", "When and where", "For each: about what time, and where?"),
    ("detail", "How much", "For each that is still open: which, and how much of it?"),
    ("last", "A last look", "Read it back from the morning on. Anything else, however small?"),
)
FORGOTTEN = (
    "coffee, tea, juice, other drinks",
    "sugar, milk or cream in them",
    "oil, dressing or sauce on it",
    "nuts, seeds, dried fruit by the handful",
    "bread, crackers beside it",
    "sweets, chocolate, something baked",
    "tastes while cooking, what others left",
    "second helpings",
    "anything at night",
)
