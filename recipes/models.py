"""Recipes as the cook wrote them."""

from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models

from clients.models import Client
from nutrition.composition.cooking_methods import METHOD_WORDS
from nutrition.recipe.model import BATCH_G, LINE_G, MAX_LINES, REDUCED, SERVINGS, within
from nutrition.recipe.model import Recipe as CoreRecipe
from nutrition.recipe.notation import counted_lines
from nutrition.written.line import Choice
from nutrition.written.units import SYSTEM_WORDS
from practice.models import Practice, User
from practice.removal import Archivable, PresentManager, Removable
from practice.versioned import Versioned
from record.recorded import Recorded, ScopedManager

ROLE_CHOICES = [
    (role, role) for role in ("base", "vegetable", "greens", "protein", "sauce", "topping", "dish")
]

METHOD_CHOICES = [(code, names[0]) for code, names in METHOD_WORDS.items()]


class Recipe(Versioned, Removable, Archivable):
    """Lines as text, how many servings, what the batch weighed, and what was decided for single
    lines.

    One that was changed for a client alone carries the client and the recipe it came from.
    `measures` are whose cups and spoons it was written in: a later setting of the practice does not
    reach back.
    """

    record_leaves_out = frozenset({"kcal", "protein_g", "kcal_per_gram", "unsettled"})

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    client = models.ForeignKey(
        Client, on_delete=models.CASCADE, null=True, blank=True, related_name="recipes"
    )
    origin = models.ForeignKey(
        "self", on_delete=models.SET_NULL, null=True, blank=True, related_name="copies"
    )
    title = models.CharField(max_length=160)
    role = models.CharField("part of a bowl", max_length=10, choices=ROLE_CHOICES, default="dish")
    text = models.TextField("ingredients, one a line", max_length=20_000)
    servings = models.FloatField(
        default=4, validators=[MinValueValidator(SERVINGS[0]), MaxValueValidator(SERVINGS[1])]
    )
    batch_g = models.FloatField(
        "batch weighed [g]",
        null=True,
        blank=True,
        validators=[MinValueValidator(1), MaxValueValidator(BATCH_G[1])],
    )
    claims = models.CharField("it says it serves", max_length=60, blank=True)
    serving_measure = models.CharField("a serving is measured as", max_length=60, blank=True)
    cooked_by = models.CharField(
        "how it is cooked", max_length=20, blank=True, choices=METHOD_CHOICES
    )
    reduced = models.FloatField(
        "boiled away [share]",
        null=True,
        blank=True,
        validators=[MinValueValidator(REDUCED[0]), MaxValueValidator(REDUCED[1])],
    )
    measures = models.CharField(
        "cups and spoons", max_length=10, choices=list(SYSTEM_WORDS.items()), default="us"
    )
    method = models.TextField(blank=True, max_length=20_000)
    choices = models.JSONField(default=dict, blank=True)
    # which recipes its lines mean, by the name that a line gives in lower case
    part_ids = models.JSONField(default=dict, blank=True)

    # a serving as it was last reckoned, for the order of long lists and nothing else
    kcal = models.FloatField(null=True, editable=False)
    protein_g = models.FloatField(null=True, editable=False)
    kcal_per_gram = models.FloatField(null=True, editable=False)
    unsettled = models.PositiveSmallIntegerField(default=0, editable=False)

    objects = ScopedManager(_manager_class=PresentManager, practice="practice")
    with_removed = ScopedManager(practice="practice")

    class Meta:
        ordering = ["title"]

    def __str__(self) -> str:
        return self.title

    def kept(self) -> dict[str, object]:
        """Everything that makes the recipe what it is, as it is kept in a version or with a planned
        day."""
        return {name: getattr(self, name) for name in KEPT} | {
            "choices": dict(self.choices),
            "part_ids": dict(self.part_ids),
        }

    def core(self) -> CoreRecipe:
        """What the core reckons."""
        return core_of(self.kept())


KEPT = (
    "title",
    "role",
    "text",
    "servings",
    "batch_g",
    "claims",
    "serving_measure",
    "cooked_by",
    "method",
    "choices",
    "reduced",
    "measures",
)


def core_of(kept: dict) -> CoreRecipe:
    """What the core reckons of a recipe as it was kept. What was stored before there were limits is
    brought within them, so that it can always be opened and mended."""
    written = (line.strip() for line in kept["text"].splitlines() if line.strip())
    lines = counted_lines(written)[:MAX_LINES]
    choices = {
        key: Choice(choice.get("food"), _weight(choice.get("grams")))
        for key, choice in kept["choices"].items()
    }
    servings, reduced = kept["servings"], kept.get("reduced")
    return CoreRecipe(
        lines,
        title=kept["title"],
        servings=servings if within(servings, SERVINGS) else 1.0,
        batch_g=kept["batch_g"] if within(kept["batch_g"], BATCH_G) else None,
        choices=choices,
        method=kept["cooked_by"],
        reduced=reduced if within(reduced, REDUCED) else None,
        system=kept.get("measures") or "us",
        claimed=kept["claims"],
        serving_measure=kept["serving_measure"],
    )


def _weight(grams: object) -> float | None:
    return float(grams) if isinstance(grams, int | float) and within(grams, LINE_G) else None


class RecipeVersion(Recorded):
    """A recipe as it was at one time, with who kept it and why."""

    record_of = "recipe"
    record_leaves_out = frozenset({"data"})

    recipe = models.ForeignKey(Recipe, on_delete=models.CASCADE, related_name="versions")
    number = models.PositiveIntegerField()
    why = models.CharField(max_length=200)
    by = models.ForeignKey(User, on_delete=models.PROTECT, null=True)
    made = models.DateTimeField(auto_now_add=True)
    data = models.JSONField()

    objects = ScopedManager(practice="recipe__practice")

    class Meta:
        ordering = ["-number"]
        constraints = [
            models.UniqueConstraint(
                fields=["recipe", "number"], name="one_recipe_version_of_a_number"
            )
        ]

    def as_recipe(self) -> Recipe:
        """The recipe as it was, not stored."""
        return Recipe(practice_id=self.recipe.practice_id, **self.data)
