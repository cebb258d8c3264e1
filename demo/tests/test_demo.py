"""The demo practice loads, and every screen has real work to show."""

from django.test import TestCase
from django.utils import timezone
from django_scopes import scope

from bowls.bowl import reckon_bowl
from bowls.models import Bowl
from clients.models import Client
from clients.plan.attention import judged_now, weekly_pace
from clients.plan.cautions import of_foods, of_the_client
from clients.plan.in_force import plan_of
from demo.load import unsettled
from demo.tests.demo_rows import fill
from nutrition.safety.caution_rules import rules
from nutrition.targets.schools import schools
from pantry.in_force import foods_of_practice
from planner.cautions import told_of
from planner.day import reckon_day
from planner.models import Day
from planner.plans import plan_for
from practice.models import Practice
from recipes.models import Recipe


class Demo(TestCase):
    @classmethod
    def setUpTestData(cls):
        fill()

    def run(self, result=None):
        practice = Practice.objects.filter(name="Tern Point Wellness").first()
        with scope(practice=practice), foods_of_practice(practice):
            return super().run(result)

    def test_load(self):
        self.assertGreaterEqual(Client.objects.count(), 10)
        self.assertGreaterEqual(Recipe.objects.count(), 40)
        self.assertGreaterEqual(Bowl.objects.count(), 6)
        self.assertEqual(unsettled(), ["Grandmother's pot, to be settled"])
        for client in Client.objects.all():
            self.assertGreaterEqual(client.weigh_ins.count(), 6, client.name)
            self.assertTrue(client.target_versions.exists())
        for day in Day.objects.all():
            self.assertGreater(reckon_day(day).profile["energy_kcal"].amount, 0)

    def test_every_school_and_many_conditions(self):
        clients = list(Client.objects.all())
        self.assertLessEqual(set(schools()), {client.school for client in clients})
        self.assertGreaterEqual(len({code for client in clients for code in client.conditions}), 20)

    def test_every_caution_has_its_case(self):
        fired = set()
        for client in Client.objects.all():
            pace = weekly_pace(judged_now(client, timezone.localdate()))
            told = of_the_client(plan_of(client), client, pace.kg_per_week if pace else None)
            fired |= {caution.code for caution in told.standing} | {
                caution.code for caution, _row in told.put_aside
            }
        for day in Day.objects.all():
            reckoned = reckon_day(day)
            told = told_of(plan_for(day), day, reckoned)
            fired |= {caution.code for caution in told.standing}
        for bowl in Bowl.objects.exclude(client=None):
            told = of_foods(plan_of(bowl.client), reckon_bowl(bowl).ingredients)
            fired |= {caution.code for caution in told.standing}
        self.assertEqual({rule.code for rule in rules()} - fired, set())
