"""Recipes as the cook wrote them."""

from django.core.validators import MinValueValidator
from django.db import models
from django_scopes import ScopedManager

from nutrition.cooking import METHOD_WORDS
from nutrition.lines import Choice
from nutrition.recipe import Recipe as CoreRecipe
from practice.models import Practice, User
from practice.versioned import Versioned

ROLE_CHOICES = [(role, role) for role in ("base", "vegetable", "greens", "protein", "sauce", "topping", "dish")]

METHOD_CHOICES = [(code, names[0]) for code, names in METHOD_WORDS.items()]


class Recipe(Versioned):
    """Lines as text, how many servings, what the batch weighed, and what was decided for single lines."""

    practice = models.ForeignKey(Practice, on_delete=models.CASCADE)
    title = models.CharField(max_length=160)
    role = models.CharField("part of a bowl", max_length=10, choices=ROLE_CHOICES, default="dish")
    text = models.TextField("ingredients, one a line", max_length=20_000)
    servings = models.FloatField(default=4, validators=[MinValueValidator(0.1)])
    batch_g = models.FloatField("batch weighed [g]", null=True, blank=True, validators=[MinValueValidator(1)])
    claims = models.CharField("it says it serves", max_length=60, blank=True)
    serving_measure = models.CharField("a serving is measured as", max_length=60, blank=True)
    cooked_by = models.CharField(
        "how it is cooked", max_length=20, blank=True, choices=[(code, names[0]) for code, names in METHOD_WORDS.items()]
    )
    method = models.TextField(blank=True, max_length=20_000)
    choices = models.JSONField(default=dict, blank=True)

    objects = ScopedManager(practice="practice")

    class Meta:
        ordering = ["title"]

    def __str__(self) -> str:
        return self.title

    def core(self) -> CoreRecipe:
        """What the core reckons."""
        lines = tuple(line.strip() for line in self.text.splitlines() if line.strip())
        choices = {text: Choice(**choice) for text, choice in self.choices.items()}
        return CoreRecipe(
            lines,
            self.title,
            self.servings,
            self.batch_g,
            choices,
            self.cooked_by,
            system=self.practice.measures,
            claimed=self.claims,
            serving_measure=self.serving_measure,
        )


KEPT = ("title", "role", "text", "servings", "batch_g", "claims", "serving_measure", "cooked_by", "method", "choices")


class RecipeVersion(models.Model):
    """A recipe as it was at one time, with who kept it and why."""

    recipe = models.ForeignKey(Recipe, on_delete=models.CASCADE, related_name="versions")
    number = models.PositiveIntegerField()
    why = models.CharField(max_length=200)
    by = models.ForeignKey(User, on_delete=models.PROTECT, null=True)
    made = models.DateTimeField(auto_now_add=True)
    data = models.JSONField()

    objects = ScopedManager(practice="recipe__practice")

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["recipe", "number"], name="one_recipe_version_of_a_number")]

    def as_recipe(self) -> Recipe:
        """The recipe as it was, not stored."""
        return Recipe(practice_id=self.recipe.practice_id, **self.data)
