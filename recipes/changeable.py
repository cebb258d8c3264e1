"""A recipe as something that can be changed: its lines as portions of a serving, and an edit
written back into its text as a new version."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from functools import cached_property

from django.http import HttpResponse, QueryDict
from django.shortcuts import get_object_or_404, redirect, render

from changes.aims import WHOLE_DAY, meal_of, meal_options
from changes.changeable import Changeable, Look
from changes.offers import Edit, Outdated, swapped_in
from changes.places import Worn, worn_in
from clients.pages.context import PageRequest, settle_on
from clients.plan.strip import strip_context
from nutrition.composition.cooking import cook
from nutrition.composition.portion import Portion
from nutrition.composition.profile import Profile
from nutrition.portions.serving_limits import MEAL_OF_DAY, OF_A_MEAL, WORN
from nutrition.recipe.model import choice_keys
from nutrition.recipe.notation import as_written, not_counted, noted
from nutrition.recipe.reckoning import Facts, line_method
from nutrition.swaps.ranking import plain_profile, thinned
from nutrition.swaps.swap import Step, Swap
from nutrition.targets.aim import Aim
from nutrition.targets.meals import likely_meal
from nutrition.written.line import Choice
from nutrition.written.matching import reckon_line
from nutrition.written.wording import uncapitalized
from recipes.client_copies import batch_follows, copy_for, save_new
from recipes.dishes import line_portions
from recipes.facts import facts_of
from recipes.models import Recipe
from recipes.versions import save_kept

# A serving judged by as much of the day as its calories are.
BY_CALORIES = "calories"
IN_A_BOWL = "worn-"
# What a measure may be off from the grams before the grams are written. [share]
SAME_GRAMS = 0.03


class RecipeChanges(Changeable):
    kind, pages, sent = "recipe", "recipes", ("swap",)
    no_plan = "Choose a client whose targets are known: swaps close the gap to them."
    nothing = "A serving brings no energy yet: settle the lines first."
    swap_words = "A serving is judged as"
    makes_version = True

    @classmethod
    def opened(cls, request: PageRequest, pk: int) -> tuple[RecipeChanges, HttpResponse | None]:
        recipe: Recipe = get_object_or_404(Recipe.with_removed.select_related("client"), pk=pk)
        elsewhere = settle_on(request, recipe.client) if request.for_client is None else None
        return cls(request, recipe), elsewhere

    @cached_property
    def facts(self) -> Facts:
        return facts_of(self.record)

    @property
    def system(self) -> str:
        return self.record.measures

    def look(self, asked: QueryDict, swaps: bool = False) -> Look:
        """One serving, its lines in the grams of the batch, each cooked as the recipe says."""
        facts, day = self.facts, self.day
        servings, kcal = facts.recipe.servings, facts.serving["energy_kcal"].amount
        meal = meal_of(day, asked.get("meal", BY_CALORIES))
        share = kcal / day["energy_kcal"].aim

        def brings(line: Portion, step: Step) -> Profile:
            if step.food is None or step.food == line.food or step.grams <= 0:
                return plain_profile(line, step)
            grams = step.grams
            method = line_method(facts.recipe, int(line.key))
            return cook(step.food, grams, grams, grams, method).profile * (1 / servings)

        def thinner(aims: Sequence[Aim]) -> list[Swap]:
            if self.record.role != "sauce":
                return []
            return thinned(facts.serving, aims, self.gate, servings, self.system)

        worn = self._worn(asked)
        if worn is not None:
            return self._in_a_bowl(worn, asked, brings, thinner)
        words = f"as much of the day as its calories, {share * 100:.0f} %"
        if self.record.role in WORN:
            words = "a quarter of what a meal may have"
            share = MEAL_OF_DAY * OF_A_MEAL
        return Look(
            portions=line_portions(facts) if kcal > 0 else [],
            besides=Profile.empty(),
            only_mosts=self.record.role in WORN and meal is None,
            chosen=meal.key if meal else BY_CALORIES,
            options=[
                (BY_CALORIES, words),
                *(option for option in meal_options(day) if option[0] != WHOLE_DAY),
            ],
            meal=meal,
            share=None if meal else share,
            by_calories=meal is None,
            whole=facts.serving,
            profile_of=brings,
            extra=thinner,
            times=servings,
        )

    @cached_property
    def wearing(self) -> list[Worn]:
        """The bowls that wear it, for a sauce or a topping."""
        return worn_in(self.record, self.client) if self.record.role in WORN else []

    def _worn(self, asked: QueryDict) -> Worn | None:
        """The bowl in which it is judged: the one that is asked for, or the first."""
        chosen = asked.get("meal", "")
        if chosen and not chosen.startswith(IN_A_BOWL):
            return None
        at = chosen.removeprefix(IN_A_BOWL)
        known = {str(n): one for n, one in enumerate(self.wearing)}
        return known.get(at, next(iter(known.values()), None))

    def _in_a_bowl(
        self,
        worn: Worn,
        asked: QueryDict,
        brings: Callable[[Portion, Step], Profile],
        thinner: Callable[[Sequence[Aim]], list[Swap]],
    ) -> Look:
        """What a bowl wears of it, judged with the rest of the bowl."""
        facts, day, times = self.facts, self.day, worn.servings
        whole = facts.serving * times + worn.rest
        meal = likely_meal(day.meals, whole["energy_kcal"].amount)

        def worn_brings(line: Portion, step: Step) -> Profile:
            if step.food is None or step.food == line.food or step.grams <= 0:
                return plain_profile(line, step)
            return brings(line, step) * times

        return Look(
            portions=[replace(line, profile=line.profile * times) for line in line_portions(facts)],
            besides=worn.rest,
            chosen=f"{IN_A_BOWL}{self.wearing.index(worn)}",
            options=[
                *((f"{IN_A_BOWL}{n}", f"worn by {one.name}") for n, one in enumerate(self.wearing)),
                (BY_CALORIES, "a quarter of what a meal may have"),
                *(option for option in meal_options(day) if option[0] != WHOLE_DAY),
            ],
            meal=meal,
            whole=whole,
            profile_of=worn_brings,
            extra=thinner if times == 1 else None,
            times=facts.recipe.servings / times,
        )

    def dishes(self, look: Look) -> Mapping[str, Sequence[Portion]]:
        return {}

    def known(self) -> set[str]:
        return {str(at) for at in range(len(self.facts.lines))}

    def write(self, edits: Sequence[Edit], why: str, asked: QueryDict, version: int) -> str:
        """Into a copy that is the client's own, or, where that is said, into the recipe of
        everybody."""
        recipe, client, by = self.record, self.client, self.request.user
        everybody = "everybody" in self.request.POST
        if everybody or client is None or recipe.client_id == client.pk:
            written_into(recipe, edits)
            made = save_kept(recipe, version, by, why)
            return f"Version {made.number}: {made.why}"
        own = copy_for(recipe, client)
        written_into(own, edits)
        made = save_new(own, by, why)
        self.record = own
        return (
            f"{own.title} is {client.name}'s own now; {recipe.title} stays as it is. "
            f"Version {made.number}: {made.why}"
        )

    def remake(self, key: str) -> str:
        raise Outdated("A recipe is made without something from the bowl or the day it is in.")

    def answer(self, key: str = "") -> HttpResponse:
        return redirect("recipes:swap", self.record.pk)

    def page(self, context: dict[str, object]) -> HttpResponse:
        strip = strip_context(
            self.request,
            self.plan,
            self.facts.serving,
            self.client,
            "One serving",
            judge=self.record.role == "dish",
            why=f"recipe-{self.record.pk}",
        )
        context |= {"facts": self.facts} | strip
        return render(self.request, "recipes/swaps.html", context)

    def stale(self, current: Recipe, what: str) -> HttpResponse:
        return self.answer()


def _written(
    recipe: Recipe, slug: str, grams: float, measure: str, ending: str
) -> tuple[str, dict[str, object]]:
    """A line for a food and its grams as a cook would write it, and what must be kept beside it so
    that it is read as meant. [g]"""
    food = swapped_in(slug)
    text = f"{measure or f'{grams:.3g} g'} {uncapitalized(food.name)}"
    read = reckon_line(text, None, Choice(slug), recipe.measures)
    near = read.grams is not None and abs(read.grams - grams) <= SAME_GRAMS * grams
    kept: dict[str, object] = {"food": slug} if near else {"food": slug, "grams": round(grams, 2)}
    return text + ending, kept


def _ending(text: str) -> str:
    """What a line says of how it is cooked and what of it is left: " [method: roasted]"."""
    said = noted(text)
    return as_written("", said.method, said.left)


def written_into(recipe: Recipe, edits: Sequence[Edit]) -> None:
    """Write edits into the recipe's text; it is not saved. Raises Outdated where a line is not
    there any more."""
    facts = facts_of(recipe)
    keys = choice_keys(facts.recipe.lines)
    texts: list[str | None] = [line.text for line in facts.lines]
    choices = [recipe.choices.get(key) for key in keys]
    for edit in edits:
        if not edit.key:
            text, choice = _written(recipe, edit.food, edit.grams, edit.measure, "")
            texts.append(text)
            choices.append(choice)
            continue
        at = int(edit.key)
        old = texts[at] if at < len(texts) else None
        if old is None:
            raise Outdated("That line is no longer in the recipe.")
        choices[at] = None
        if edit.grams <= 0:
            texts[at] = None
        elif edit.food:
            texts[at], choices[at] = _written(
                recipe, edit.food, edit.grams, edit.measure, _ending(old)
            )
        else:
            # a part is another recipe: its weight is all there is to write
            part = facts.lines[at].food
            if part is None:
                raise Outdated("That recipe is no longer there.")
            texts[at] = f"{edit.grams:.0f} g [recipe: {part.name}]{_ending(old)}"
    left = [(text, choice) for text, choice in zip(texts, choices, strict=True) if text is not None]
    kept = zip(choice_keys([text for text, _choice in left]), left, strict=True)
    out = [line.strip() for line in recipe.text.splitlines() if not_counted(line.strip())]
    recipe.text, recipe.choices = (
        "\n".join([*(text for text, _choice in left), *out]),
        {key: choice for key, (_text, choice) in kept if choice},
    )
    batch_follows(recipe, facts)
