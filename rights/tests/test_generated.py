"""Clients made by chance: what goes out of one in any format comes back, and an archive of one is
the same client in another practice."""

import json
import random
from dataclasses import replace
from datetime import date, timedelta

from django_scopes import scope

from bowls.models import Bowl, BowlPart
from clients.models import BloodValue, Client, WeighIn
from clients.plan.versions import make_version
from exchange.archive_files import fhir_of
from exchange.chart import chart_of
from exchange.tables import logs_csv, plans_csv
from exchange.tables_in import take_in
from journal.models import LoggedDay, LoggedEntry
from nutrition.formats.fhir.reading import read_bundle
from nutrition.targets.blood import analytes
from nutrition.tests.thorough import thorough
from planner.models import MEALS, Day, DayEntry
from planner.planned_copies import plan_dish
from practice.testing import PracticeCase
from recipes.models import Recipe
from rights.archive.reading import opened, read_client
from rights.archive.writing import archive_of_client

FOODS = ("tofu-firm", "kale-raw", "walnuts", "tahini", "millet-cooked")
POTS = (
    ("Barley pot", "1 cup pearl barley, dry\n2 cups kale\n1 tsp salt"),
    ("Mung soup", "1 cup split mung beans, dry\n1 onion\n4 cups water"),
)
ALLERGIES = ("sesame", "soy", "peanut", "kiwi")
CASES = 6


@thorough
class Generated(PracticeCase):
    @classmethod
    def make_rows(cls):
        cls.recipes = [
            Recipe.objects.create(
                practice=cls.practice, title=title, role="dish", servings=4, text=text
            )
            for title, text in POTS
        ]

    def make(self, chance: random.Random) -> Client:
        """A client with weeks of everything."""
        client = Client.objects.create(
            practice=self.practice,
            name=f"Client {chance.randrange(10_000)}, é “quoted”; =SUM(1)",
            sex=chance.choice(["female", "male"]),
            birth_year=1971,
            birth_date=chance.choice([None, date(1971, 2, 28)]),
            height_cm=round(chance.uniform(150, 200), 1),
            weight_kg=round(chance.uniform(50, 120), 1),
            allergies=chance.sample(ALLERGIES, chance.randrange(3)),
            goal=chance.choice(["hold", "lose"]),
        )
        make_version(client, self.user, "First visit")
        on = date(2026, 11, 1)
        for day in range(chance.randrange(1, 9)):
            WeighIn.objects.create(
                client=client, date=on + timedelta(days=day), kg=round(chance.uniform(60, 70), 2)
            )
        for key in chance.sample(sorted(analytes()), chance.randrange(1, 8)):
            self.value(client, key, on, chance)
        bowl = Bowl.objects.create(practice=self.practice, client=client, name="Tide bowl")
        BowlPart.objects.create(
            bowl=bowl, role="greens", food="kale-raw", grams=chance.uniform(20, 90)
        )
        for day in range(chance.randrange(1, 5)):
            self.day(client, on + timedelta(days=day), bowl, chance)
        return client

    def value(self, client, key, on, chance):
        one = analytes()[key]
        low, high = one.possible
        BloodValue.objects.create(
            client=client,
            date=on,
            key=key,
            unit=one.unit,
            by=self.user,
            value=round(chance.uniform(low + (high - low) / 4, high / 2 + low / 2), 2),
            low=chance.choice([None, round(low, 2)]),
            laboratory=chance.choice(["", "Harbor, lab"]),
        )

    def day(self, client, on, bowl, chance):
        day = Day.objects.create(practice=self.practice, client=client, date=on)
        log = LoggedDay.objects.create(
            practice=self.practice, client=client, date=on, whole=chance.random() < 0.5
        )
        for _ in range(chance.randrange(1, 5)):
            thing = chance.choice(
                [{"food": chance.choice(FOODS)}, {"recipe": chance.choice(self.recipes)}]
                + [{"bowl": bowl}]
            )
            grams, servings = round(chance.uniform(20, 300), 1), chance.choice([1, 2.5])
            amount = grams if "food" in thing else servings
            meal = chance.choice([key for key, _name in MEALS])
            entry = DayEntry(day=day, meal=meal, amount=amount, **thing)
            plan_dish(entry, self.practice)
            entry.save()
            eaten = LoggedEntry(
                day=log, meal=meal, amount=amount, said=chance.choice(["", "a bit, “so”"]), **thing
            )
            plan_dish(eaten, self.practice)
            eaten.save()

    def test_what_goes_out_comes_back(self):
        for seed in range(CASES):
            with self.subTest(seed=seed):
                client = self.make(random.Random(seed))
                self.by_fhir(client)
                self.by_tables(client)
                self.by_archive(client)

    def by_fhir(self, client):
        found, chart = read_bundle(fhir_of(client).decode()), chart_of(client)
        self.assertEqual((found.told, found.asked), ((), ()))
        self.assertEqual(set(found.chart.limits), set(chart.limits))
        self.assertEqual(replace(found.chart, limits=()), replace(chart, limits=()))

    def by_tables(self, client):
        for write, rows in ((plans_csv, Day), (logs_csv, LoggedDay)):
            before = write(client)
            for day in rows.objects.filter(client=client):
                day.delete()
            self.assertEqual(take_in(client, before.decode(), self.user).told, [])
            self.assertEqual(write(client), before)

    def by_archive(self, client):
        archive, mine = archive_of_client(client), json.loads(fhir_of(client))
        plans, logs = plans_csv(client), logs_csv(client)
        with scope(practice=self.other_practice):
            taken = read_client(opened(archive), self.other_practice, self.other_user)
            theirs = json.loads(fhir_of(taken))
            self.assertEqual(plans_csv(taken), plans)
            self.assertEqual(logs_csv(taken), logs)
        # but for the names of its parts, which are of where it is kept
        self.assertEqual(_without_names(theirs), _without_names(mine))


def _without_names(value):
    """A bundle without what tells one copy of a client from another."""
    if isinstance(value, dict):
        dropped = ("id", "fullUrl", "reference", "identifier")
        return {key: _without_names(one) for key, one in value.items() if key not in dropped}
    return [_without_names(one) for one in value] if isinstance(value, list) else value
