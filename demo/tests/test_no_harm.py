"""Nothing that is proposed is what its own page warns of: every client of the demo, with bowls and
days in turn, and variations of them."""

from django.http import QueryDict
from django.test import TestCase
from django_scopes import scope

from bowls.changeable import BowlChanges
from bowls.models import Bowl, BowlPart
from changes.aims import WHOLE_DAY
from changes.offers import LEFT_OUT_G
from changes.proposals import problem_of
from changes.swaps import panel
from clients.models import Client
from clients.plan.cautions import of_foods
from clients.plan.gate import avoided_by, gate_of
from clients.plan.in_force import plan_of
from clients.testing import asked_for
from demo.tests.demo_rows import fill
from nutrition.composition.amounts import amount_of
from nutrition.composition.food_classes import kinds_of
from nutrition.composition.food_mosts import most_of
from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.portions.added_to_a_meal import added_to
from nutrition.portions.hints import hints
from nutrition.portions.problem import OF_PLANTS, BadProblem
from nutrition.portions.proposals import balanced
from nutrition.portions.solver import balance
from nutrition.safety.caution_rules import LEVELS
from nutrition.targets.aims import upper_levels
from pantry.in_force import foods_of_practice
from planner.changeable import DayChanges
from planner.completeness import filled
from planner.day import reckon_day
from planner.models import Day, DayEntry
from planner.plans import plan_for
from practice.models import Practice

# What somebody or other must not have, put into bowls and days beside what is there: a variation of
# each.
DANGEROUS = (
    "walnuts",
    "tahini",
    "raw-sprouts",
    "alfalfa-sprouts-raw",
    "cooking-wine",
    "kelp-dried",
    "brazil-nuts",
    "grapefruit-raw",
    "miso",
    "sourdough-bread",
    "fava-beans-cooked",
    "almonds",
    "psyllium-husk",
    "wheat-bran",
    "star-fruit-raw",
    "red-wine",
    "soy-sauce",
    "salt-substitute-potassium-chloride",
    "kidney-beans-dry",
    "cassava-raw",
    "nutmeg-ground",
)


class NoHarm(TestCase):
    @classmethod
    def setUpTestData(cls):
        fill()
        cls.practice = Practice.objects.get(name="Tern Point Wellness")

    def run(self, result=None):
        practice = Practice.objects.filter(name="Tern Point Wellness").first()
        with scope(practice=practice), foods_of_practice(practice):
            return super().run(result)

    def warned(self, plan, foods):
        """What the page says of these foods, by its own way: (something to stop and ask about,
        anything at all)."""
        named = [caution for caution in of_foods(plan, foods).standing if caution.names]
        avoided = any(kind in kinds_of(part) for kind in avoided_by(plan) for part in foods)
        return any(caution.level == LEVELS[0] for caution in named), bool(named) or avoided

    def check_portions(self, plan, problem, told):
        for proposal in told:
            portions = proposal.answer.portions
            for part in problem.parts:
                foods, before, after = part.foods, part.grams, portions[part.key]
                _stops, warns = self.warned(plan, foods)
                if part.locked:
                    self.assertEqual(after, before)
                elif after >= LEFT_OUT_G:
                    then = [one.times(after / before) for one in foods] if before else foods
                    self.assertFalse(
                        self.warned(plan, then)[0], f"{after:g} g of {part.name} for {plan.client}"
                    )
                if warns and not part.locked:
                    self.assertLessEqual(after, before + 0.05, f"{part.name} for {plan.client}")
                for one in foods if len(foods) == 1 else ():
                    own = most_of(one.food)
                    if own is not None and not part.locked:
                        self.assertLessEqual(
                            after, own.most_g + 0.05, f"{part.name} for {plan.client}"
                        )

    def check_upper_levels(self, plan, problem, answer):
        """None is passed that the practitioner's own portions keep, and none that they pass is
        passed further, but for what whole plants bring by themselves."""
        own = {part.key: part.grams for part in problem.parts}
        for key, most in upper_levels(plan.day).items():
            now, then = (
                sum(
                    amount_of(p.profile, key).amount / p.profile.grams * portions[p.key]
                    for p in problem.parts
                )
                + problem.base.get(key, 0.0)
                for portions in (own, answer.portions)
            )
            ordered = any(order.key == key and order.kind == "order" for order in plan.orders)
            passed_already = now > most and key in OF_PLANTS
            if not ordered and not passed_already and problem.base.get(key, 0.0) < most:
                self.assertLessEqual(then, max(now, most) * (1 + 1e-6), f"{key}, {plan.client}")

    def check_hints(self, plan, problem, answer):
        by_key = {part.key: part for part in problem.parts}
        for hint in hints(problem, answer, added_to(problem)):
            if hint.kind == "add":
                food = food_table()[hint.id]
                self.assertFalse(
                    self.warned(plan, [Ingredient(food, hint.to)])[1],
                    f"add {food.name} for {plan.client}",
                )
            elif hint.kind == "larger":
                self.assertLessEqual(hint.to, by_key[hint.id].limits.ceiling + 1e-6)
                self.assertFalse(self.warned(plan, by_key[hint.id].foods)[1], hint.words)

    def check_panel(self, plan, found):
        for gap in (*found["gaps"], *found["also_short"]):
            for one in gap.fillers:
                foods = [Ingredient(one.filler.food, one.filler.grams)]
                self.assertFalse(
                    self.warned(plan, foods)[1], f"{one.filler.words} for {plan.client}"
                )
                self.assertFalse(one.cautions)
            for one in gap.swaps:
                self.assertFalse(
                    [caution for caution in one.cautions if caution.names],
                    f"{one.words} for {plan.client}",
                )

    def clients(self):
        plans = [plan_of(client) for client in Client.objects.all()]
        return [plan for plan in plans if plan.day is not None]

    def look_at_bowl(self, plan, bowl, whole=False, look_on=False):
        it = BowlChanges(asked_for(plan.client), bowl)
        look = it.look(QueryDict(f"meal={WHOLE_DAY}" if whole else ""))
        try:
            problem = problem_of(it, look)
        except BadProblem:
            return
        found = balanced(problem)
        self.check_portions(plan, problem, found.told)
        for one in found.told:
            self.check_upper_levels(plan, problem, one.answer)
        if look_on:
            self.check_hints(plan, found.problem, found.answer)
            self.check_panel(plan, panel(it, it.look(QueryDict(f"meal={WHOLE_DAY}"), swaps=True)))

    def test_every_client_and_a_bowl_and_every_bowl_and_a_client(self):
        """A sample that turns: each client meets their own bowls and another, each bowl every
        seventh client."""
        bowls = list(Bowl.objects.all())
        for n, plan in enumerate(self.clients()):
            for m, bowl in enumerate(bowls):
                turn = (n + m) % 7
                if turn > 0 and bowl.client_id != plan.client.pk:
                    continue
                with self.subTest(client=plan.client.name, bowl=bowl.name):
                    at = n + m // 7
                    self.look_at_bowl(plan, bowl, whole=at % 3 == 0, look_on=at % 4 == 0)

    def test_every_client_and_what_is_dangerous_to_somebody(self):
        """Each client meets one half of it or the other, in turn."""
        slugs = [slug for slug in DANGEROUS if slug in food_table()]
        self.assertGreaterEqual(len(slugs), 17)
        for n, plan in enumerate(self.clients()):
            bowl = Bowl.objects.create(
                practice=self.practice, name=f"dangerous {n}", vessel_ml=1500
            )
            for place, slug in enumerate(["millet-cooked", "kale-raw", *slugs[n % 2 :: 2]]):
                food = food_table()[slug]
                BowlPart.objects.create(
                    bowl=bowl,
                    role=food.role if food.role != "other" else "sauce",
                    food=slug,
                    grams=20,
                    place=place,
                )
            with self.subTest(client=plan.client.name):
                self.look_at_bowl(plan, bowl, look_on=n % 3 == 0)

    def test_two_days_of_each_client_and_a_variation(self):
        """The first day of each client as it stands, the second with what is dangerous to
        somebody, a third of it each in turn."""
        for n, client in enumerate(Client.objects.all()):
            for m, day in enumerate(client.days.order_by("pk")[:2]):
                plan = plan_for(day)
                if plan.day is None:
                    continue
                more = DANGEROUS[n % 3 :: 3] if m or n % 2 else ()
                for slug in more:
                    if slug in food_table():
                        DayEntry.objects.create(day=day, meal="dinner", food=slug, amount=20)
                with self.subTest(client=plan.client.name, day=day.note, more=more):
                    self.look_at_day(day, plan, look_on=(n + m) % 3 == 0)

    def look_at_day(self, day, plan, look_on):
        it = DayChanges(asked_for(plan.client), day)
        look = it.look(QueryDict(""))
        if not look.portions:
            return
        problem = problem_of(it, look)
        found = balanced(problem)
        self.check_portions(plan, problem, found.told)
        for one in found.told:
            self.check_upper_levels(plan, problem, one.answer)
        # what lacks meals is not blown up to fill them
        share = filled(it.reckoned, plan).share
        kcal = next(aim for aim in problem.aims if aim.key == "energy_kcal")
        self.assertLessEqual(kcal.aim, plan.day["energy_kcal"].aim * share + 1)
        if look_on:
            self.check_hints(plan, found.problem, found.answer)
            self.check_panel(plan, panel(it, it.look(QueryDict(""), swaps=True)))

    def test_what_is_found_today_holds_for_what_was_planned_before(self):
        day = Day.objects.filter(client__name="Wren Adeyemi-Lund").first()
        DayEntry.objects.create(day=day, meal="snack", food="walnuts", amount=30)
        plan = plan_for(day)
        self.assertFalse(gate_of(plan).why_not(food_table()["walnuts"]))
        Client.objects.filter(pk=day.client_id).update(allergies=["tree nuts"])
        day = Day.objects.get(pk=day.pk)
        plan, reckoned = plan_for(day), reckon_day(day)
        self.assertIn(
            "allergen", {caution.code for caution in of_foods(plan, reckoned.ingredients).standing}
        )
        it = DayChanges(asked_for(day.client), day)
        problem = problem_of(it, it.look(QueryDict("")))
        walnuts = next(part for part in problem.parts if part.name == "Walnuts")
        self.assertEqual(balance(problem).portions[walnuts.key], 0)
