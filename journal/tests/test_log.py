"""What was eaten: as planned in one touch, else in the words of a kitchen; what is not logged is
unknown."""

from datetime import timedelta

from django.utils import timezone

from clients.plan.in_force import plan_of
from journal.models import LoggedDay
from journal.record.reading import read
from planner.models import Day, DayEntry
from planner.planned_copies import plan_dish
from planner.testing import DayCase
from recipes.models import Recipe


class Log(DayCase):
    def setUp(self):
        super().setUp()
        self.today = timezone.localdate()
        self.stew = Recipe.objects.create(
            practice=self.practice,
            title="Split mung stew",
            role="dish",
            servings=4,
            text="300 g split mung beans, dry\n200 g carrots\n1 l water",
        )
        self.plan = Day.objects.create(
            practice=self.practice, client=self.client_row, date=self.today
        )
        self.planned = self.put("lunch", recipe=self.stew)
        self.walnuts = self.put("snack", food="walnuts", amount=30)

    def put(self, meal, amount=1.0, **what):
        entry = DayEntry(day=self.plan, meal=meal, amount=amount, **what)
        plan_dish(entry, self.practice)
        entry.save()
        return entry

    def address(self, tail=""):
        return self.for_client(f"/journal/days/{self.today.isoformat()}/{tail}")

    def change(self, htmx=True, **data):
        return self.post(self.address("change/"), data, htmx)

    @property
    def log(self):
        return LoggedDay.objects.get(client=self.client_row, date=self.today)

    def rows(self):
        return list(self.log.entries.order_by("pk"))

    def known(self):
        record = read(self.client_row, self.today, plan_of(self.client_row)).record
        return record.logged

    def test_all_as_planned_in_one_touch(self):
        page = self.client.get(self.address())
        self.assertContains(page, "All of it as planned")
        self.assertContains(page, "unknown, not zero")
        self.assertFalse(LoggedDay.objects.exists(), "looking logs nothing")
        answer = self.change(**{"as-planned": "all"})
        self.assertContains(answer, "Wholly logged")
        self.assertTrue(self.log.whole)
        day = self.known()[0]
        eaten, planned = (
            day.profile["energy_kcal"],
            sum(one.portion.profile["energy_kcal"].amount for one in day.planned),
        )
        self.assertAlmostEqual(eaten.amount, planned)
        self.assertLess(eaten.low, eaten.amount, "nobody weighed it: it has a range")

    def test_a_meal_then_a_share_then_nothing_of_it(self):
        self.change(**{"as-planned": "lunch"})
        self.assertEqual([row.of_entry_id for row in self.rows()], [self.planned.pk])
        self.assertFalse(self.log.whole)
        self.change(part=self.planned.pk, share="0.5")
        self.assertEqual([(row.amount, row.how) for row in self.rows()], [(0.5, "less")])
        self.change(part=self.planned.pk, share="0.0")
        self.assertEqual([(row.amount, row.how) for row in self.rows()], [(0.0, "left out")])
        self.assertEqual(self.known()[0].eaten, ())

    def test_one_line_in_kitchen_language(self):
        self.change(text="half the stew, an apple, 2 handfuls walnuts", meal="lunch", say="1")
        stew, apple, walnuts = self.rows()
        self.assertEqual((stew.of_entry, stew.amount, stew.how), (self.planned, 0.5, "less"))
        self.assertEqual((stew.low, stew.high), (0.4, 0.6))
        self.assertEqual((apple.food, apple.how), ("apple-with-skin-raw", "besides"))
        self.assertContains(self.client.get(self.address()), "182 g (146–218, counted)")
        self.assertEqual(
            (walnuts.of_entry, walnuts.amount, walnuts.how), (self.walnuts, 60, "more")
        )
        day = self.known()[0]
        self.assertFalse(day.whole)
        self.assertFalse(self.known()[0].profile["energy_kcal"].amount == 0)

    def test_meals_may_be_named(self):
        self.change(text="lunch: as planned; snacks: a banana, no walnuts", meal="dinner", say="1")
        hows = {(row.meal, row.how, row.food) for row in self.rows()}
        self.assertEqual(
            hows,
            {
                ("lunch", "as planned", ""),
                ("snack", "besides", "banana-raw"),
                ("snack", "left out", "walnuts"),
            },
        )

    def test_instead_and_not(self):
        self.change(text="rye bread 60 g instead of the stew, no walnuts", meal="lunch", say="1")
        hows = {(row.how, row.of_entry_id, row.food) for row in self.rows()}
        self.assertIn(("left out", self.planned.pk, ""), hows)
        self.assertIn(("instead", None, "rye-bread"), hows)
        self.assertIn(("left out", self.walnuts.pk, "walnuts"), hows)

    def test_a_dish_of_the_practice_that_was_not_planned(self):
        self.change(text="two servings of the dill barley", meal="dinner", say="1")
        row = self.rows()[0]
        self.assertEqual((row.recipe, row.amount, row.how), (self.recipe, 2.0, "besides"))
        self.assertContains(
            self.client.get(self.address()), f"2 servings ({row.low:g}–{row.high:g}, by eye)"
        )
        self.assertLess(row.low, row.high)
        self.assertIsNotNone(row.planned, "as it is now, whatever becomes of it")

    def test_what_cannot_be_settled_stays_and_asks(self):
        answer = self.change(text="rye toast, some glorp", meal="breakfast", say="1")
        self.assertContains(answer, "what was it?")
        self.assertContains(answer, "“at")
        toast, glorp = self.rows()
        self.assertFalse(toast.settled or glorp.settled)
        self.change(whole="1")
        average = read(self.client_row, self.today, plan_of(self.client_row)).average_kcal(14)
        self.assertFalse(average.complete)
        self.change(settle=toast.pk, food="rye-bread", grams="64")
        toast.refresh_from_db()
        self.assertEqual((toast.food, toast.amount), ("rye-bread", 64.0))
        self.assertLess(toast.low_g, 64 * 0.8, "chosen by eye")
        self.change(settle=glorp.pk, text="2 tbsp tahini", again="1")
        self.assertEqual(self.rows()[-1].food, "tahini")

    def test_a_cup_of_grain_that_was_eaten_was_cooked(self):
        Recipe.objects.create(
            practice=self.practice,
            title="Rye, hemp and pear breakfast",
            servings=1,
            text="1 pear\n50 g rye flakes",
        )
        self.change(text="2 cups rice, 1 cup lentils, pear, 80 g millet", meal="snack", say="1")
        rice, lentils, pear, millet = self.rows()
        self.assertEqual((rice.food, round(rice.amount)), ("white-rice-cooked", 316))
        self.assertEqual((lentils.food, round(lentils.amount)), ("lentils-cooked", 198))
        # one word is the fruit, and not the breakfast that has it
        self.assertEqual(pear.food, "pear-raw")
        # weighed: dry or cooked? both are offered
        self.assertEqual(millet.food, "")
        page = self.client.get(self.address())
        self.assertContains(page, "Taken as dry. Was it weighed cooked?")
        for food in ("Millet, dry, 80 g", "Millet, cooked, 80 g"):
            self.assertContains(page, food)

    def test_what_is_from_an_animal_is_not_counted_as_something_else(self):
        answer = self.change(text="100 g beef", meal="dinner", say="1")
        self.assertContains(answer, "rom an animal")
        self.assertNotContains(answer, 'name="food"')
        self.assertFalse(self.rows()[0].settled)

    def test_nothing_logged_is_no_whole_day(self):
        answer = self.change(whole="1")
        self.assertContains(answer, "never zero")
        self.assertFalse(self.log.whole)
        self.change(part=self.planned.pk, share="0.0")
        self.assertContains(self.change(whole="1"), "never zero")

    def test_undo_brings_back_what_was_there_and_the_day_is_whole_no_more(self):
        self.change(**{"as-planned": "all"})
        self.change(part=self.planned.pk, share="0.5")
        self.change(undo="1")
        self.assertEqual({row.how for row in self.rows()}, {"as planned"})
        self.assertFalse(self.log.whole)
        self.change(undo="1")
        self.assertEqual(self.rows(), [])

    def test_two_tabs(self):
        self.change(**{"as-planned": "lunch"})
        version = self.log.version
        self.change(text="an apple", meal="snack", say="1", version=version)
        late = self.change(text="a banana", meal="snack", say="1", version=version)
        self.assertEqual(late.status_code, 409)
        self.assertContains(late, "make it again", status_code=409)
        self.assertContains(late, 'value="a banana"', status_code=409)
        self.assertEqual(len(self.rows()), 2)

    def test_the_log_keeps_what_the_plan_was(self):
        self.change(**{"as-planned": "all"})
        self.stew.text = "1 kg walnuts"
        self.stew.save()
        before = self.known()[0].profile["energy_kcal"].amount
        self.plan.entries.all().delete()
        self.assertEqual(self.known()[0].profile["energy_kcal"].amount, before)

    def test_dates_and_strangers(self):
        tomorrow = (self.today + timedelta(days=1)).isoformat()
        for address in (f"days/{tomorrow}/", "days/2026-13-40/", "days/1999-01-01/", "days/x/"):
            self.assertEqual(
                self.client.get(self.for_client(f"/journal/{address}")).status_code, 404, address
            )
        self.client.force_login(
            self.other_user, backend="django.contrib.auth.backends.ModelBackend"
        )
        self.assertEqual(self.client.get(self.address()).status_code, 404)
        self.assertEqual(self.change(text="an apple", say="1").status_code, 404)

    def test_how_it_felt(self):
        bad = self.post(self.address("felt/"), {"hunger": "11"})
        self.assertEqual(bad.status_code, 400)
        self.assertContains(bad, 'value="11"', status_code=400)
        self.post(self.address("felt/"), {"hunger": "7", "sleep": "3"})
        self.post(self.address("felt/"), {"hunger": "4", "sleep": "3"})
        row = self.client_row.felt.get()
        self.assertEqual((row.hunger, row.sleep, row.stool), (4, 3, None))

    def test_a_recall_in_its_passes(self):
        for name in ("list", "forgotten", "time", "detail", "last"):
            self.assertContains(
                self.client.get(self.address(f"recall/?pass={name}")), "1. Quick list"
            )
        answer = self.change(
            htmx=False, text="porridge\nan apple", meal="breakfast", back="recall", say="1"
        )
        self.assertIn("/recall/", answer["Location"])
        row = self.rows()[1]
        self.change(
            htmx=False,
            when="1",
            back="recall",
            **{f"time-{row.pk}": "7:30", f"place-{row.pk}": "on deck", f"meal-{row.pk}": "snack"},
        )
        row.refresh_from_db()
        self.assertEqual((row.time, row.place, row.meal), ("7:30", "on deck", "snack"))

    def test_without_script_it_comes_back_to_the_page(self):
        answer = self.change(htmx=False, **{"as-planned": "all"})
        self.assertEqual(answer.status_code, 302)
        self.assertTrue(self.log.whole)
