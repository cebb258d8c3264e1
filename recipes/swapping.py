"""A recipe's lines as something that can be swapped, and a swap written back into its text."""

from __future__ import annotations

from clients.swap_panel import Outdated, Subject, swapped_in
from nutrition.composition.cooking import cook
from nutrition.composition.profile import Profile
from nutrition.recipe.model import choice_keys
from nutrition.recipe.notation import as_written, noted
from nutrition.recipe.part import PartFood
from nutrition.recipe.reckoning import Facts, line_method
from nutrition.safety.gate import Gate
from nutrition.swaps.ranking import Line, Step, Swap, plain_profile, thinned
from nutrition.targets.aim import Aim
from nutrition.written.matching import Choice, reckon_line
from nutrition.written.plain import uncapitalized
from recipes.facts import facts_of
from recipes.models import Recipe

# What a measure may be off from the grams before the grams are written. [share]
SAME_GRAMS = 0.03


def key_of(recipe: Recipe) -> str:
    """What a change that is offered for this recipe is signed for."""
    return f"recipe-{recipe.pk}"


def subject_of(recipe: Recipe, facts: Facts, gate: Gate) -> Subject:
    """One serving, its lines in the grams of the batch, each cooked as the recipe says."""
    servings = facts.recipe.servings
    lines = [
        Line(
            str(at),
            line.food.name,
            None if isinstance(line.food, PartFood) else line.food,
            line.grams,
            cooked.profile * (1 / servings),
        )
        for at, (line, cooked) in enumerate(facts.rows)
        if line.food is not None and line.grams is not None and cooked is not None
    ]

    def brings(line: Line, step: Step) -> Profile:
        if step.food is None or step.food == line.food or step.grams <= 0:
            return plain_profile(line, step)
        return cook(
            step.food, step.grams, step.grams, step.grams, line_method(facts.recipe, int(line.id))
        ).profile * (1 / servings)

    def thinner(aims: list[Aim]) -> list[Swap]:
        return thinned(facts.serving, aims, gate, servings) if recipe.role == "sauce" else []

    return Subject(
        key=key_of(recipe),
        version=recipe.version,
        lines=lines,
        profile=facts.serving,
        profile_of=brings,
        extra=thinner,
        times=servings,
    )


def _written(
    recipe: Recipe, slug: str, grams: float, measure: str, ending: str
) -> tuple[str, dict[str, object]]:
    """A line for a food and its grams as a cook would write it, and what must be kept beside it so
    that it is read as meant. [g]"""
    food = swapped_in(slug)
    text = f"{measure or f'{grams:.3g} g'} {uncapitalized(food.name)}{ending}"
    read = reckon_line(text.removesuffix(ending), None, Choice(slug), recipe.measures)
    near = read.grams is not None and abs(read.grams - grams) <= SAME_GRAMS * grams
    return text, {"food": slug} if near else {"food": slug, "grams": round(grams, 2)}


def _ending(text: str) -> str:
    """What a line says of how it is cooked and what of it is left: " [method: roasted]"."""
    said = noted(text)
    return as_written("", said.method, said.left)


def apply(recipe: Recipe, steps: list[dict]) -> None:
    """Write the steps into the recipe's text; it is not saved. Raises Outdated where a line is not
    there any more."""
    facts = facts_of(recipe)
    keys = choice_keys(facts.recipe.lines)
    texts: list[str | None] = [line.text for line in facts.lines]
    choices = [recipe.choices.get(key) for key in keys]
    for step in steps:
        if not step["line"]:
            text, choice = _written(recipe, step["food"], step["grams"], step["measure"], "")
            texts.append(text)
            choices.append(choice)
            continue
        at = int(step["line"])
        old = texts[at] if at < len(texts) else None
        if old is None:
            raise Outdated("That line is no longer in the recipe.")
        choices[at] = None
        if step["grams"] <= 0:
            texts[at] = None
        elif step["food"]:
            texts[at], choices[at] = _written(
                recipe, step["food"], step["grams"], step["measure"], _ending(old)
            )
        else:
            # a part is another recipe: its weight is all there is to write
            texts[at] = f"{step['grams']:.0f} g [recipe: {facts.lines[at].food.name}]{_ending(old)}"
    left = [(text, choice) for text, choice in zip(texts, choices, strict=True) if text is not None]
    kept = zip(choice_keys([text for text, _choice in left]), left, strict=True)
    recipe.text, recipe.choices = (
        "\n".join(text for text, _choice in left),
        {key: choice for key, (_text, choice) in kept if choice},
    )
    if recipe.batch_g is not None and facts.computed_g > 0:
        # what was weighed was the batch before: it is taken to shrink and grow as the lines do
        changed = facts_of(recipe)
        recipe.batch_g = round(recipe.batch_g * changed.computed_g / facts.computed_g, 1)
