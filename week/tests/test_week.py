"""A planned week in the browser's forms: made, changed, planned, turned into days, printed."""

from datetime import date, timedelta

from django.urls import reverse
from django_scopes import scope

from bowls.models import Bowl, BowlPart
from clients.models import TargetOverride
from clients.plan.versions import make_version
from jobs.models import Job
from jobs.testing import work_off_now
from nutrition.tests.thorough import thorough
from planner.models import Day
from planner.testing import DayCase
from recipes.models import Recipe
from week.forms import next_monday
from week.models import ClientSkeleton, Favorite, MadeDay, Week, WeekEntry
from week.reckoning import reckon_week
from week.testing import planned_within

SOUP = "2 cups white beans, cooked\n2 medium carrots, diced\n1 medium onion, diced\n3 cups water"


class WeekCase(DayCase):
    @classmethod
    def setUpTestData(cls):
        super().setUpTestData()
        with scope(practice=cls.practice):
            cls.soup = Recipe.objects.create(
                practice=cls.practice,
                title="Bean soup",
                role="dish",
                servings=4,
                cooked_by="simmered",
                text=SOUP,
            )
            cls.stew = Recipe.objects.create(
                practice=cls.practice,
                title="Lentil stew",
                role="dish",
                servings=4,
                cooked_by="simmered",
                text="1 cup red lentils, dry\n2 cups kale, chopped\n4 cups water\n1/4 tsp salt",
            )
            cls.sesame = Recipe.objects.create(
                practice=cls.practice,
                title="Sesame stew",
                role="dish",
                servings=2,
                cooked_by="simmered",
                text="1 cup red lentils, dry\n3 tbsp tahini\n3 cups water",
            )
            # the target versions that a client has from the first visit on
            make_version(cls.client_row, cls.user, "First visit", date.today())

    def begin(self, start=None, days=7, **skeleton):
        """A week with soup for lunch and a main dish for dinner."""
        cells = {f"cell-{day}-lunch": "soup, fruit" for day in range(7)}
        cells |= {f"cell-{day}-dinner": "main x1.5" for day in range(7)}
        data = cells | {"cooks-6": "1", "cooks-2": "1", "in_a_row": "3"} | skeleton
        self.post(self.for_client(reverse("week:skeleton")), data)
        start = start or next_monday()
        made = self.post(
            self.for_client(reverse("week:new")), {"start": f"{start:%Y-%m-%d}", "days": days}
        )
        self.assertEqual(made.status_code, 302, made.content[:500])
        return Week.objects.latest("pk")

    def change(self, week, slot, data, htmx=True):
        week = Week.objects.get(pk=week.pk)
        address = self.for_client(reverse("week:change", args=[week.pk, slot]))
        return self.post(address, {"version": week.version} | data, htmx)

    def put(self, week, slot, thing):
        return self.change(week, slot, {"put": thing})

    def page(self, week):
        return self.client.get(self.for_client(reverse("week:page", args=[week.pk])))


class Changing(WeekCase):
    def test_a_dish_is_put_made_more_pinned_moved_and_taken_out(self):
        week = self.begin()
        shown = self.put(week, "0-dinner-0", f"recipe-{self.stew.pk}")
        self.assertContains(shown, "Lentil stew")
        row = week.entries.get()
        self.assertEqual((row.day, row.meal, row.kind, row.amount), (0, "dinner", "main", 1.0))
        self.assertIsNotNone(row.planned)
        self.change(week, "0-dinner-0", {"amount": "1 1/2"})
        self.change(week, "0-dinner-0", {"pin": "1"})
        row.refresh_from_db()
        self.assertEqual((row.amount, row.locked), (1.5, True))
        self.change(week, "0-dinner-0", {"to": "3"})
        row.refresh_from_db()
        self.assertEqual((row.day, row.place), (3, 0))
        self.change(week, "3-dinner-0", {"remove": "1"})
        self.assertFalse(week.entries.exists())
        undo = self.for_client(reverse("week:undo", args=[week.pk]))
        self.post(undo, {"version": Week.objects.get(pk=week.pk).version})
        self.assertEqual(week.entries.get().day, 3)

    def test_two_dishes_change_places_and_what_has_no_slot_there_stands_beside(self):
        week = self.begin()
        self.put(week, "0-dinner-0", f"recipe-{self.stew.pk}")
        self.put(week, "2-dinner-0", f"recipe-{self.soup.pk}")
        self.change(week, "0-dinner-0", {"to": "2"})
        where = {row.recipe_id: (row.day, row.place) for row in week.entries.all()}
        self.assertEqual(where, {self.stew.pk: (2, 0), self.soup.pk: (0, 0)})
        away = self.begin(**{"cell-4-dinner": ""})
        self.put(away, "0-dinner-0", f"recipe-{self.stew.pk}")
        self.change(away, "0-dinner-0", {"to": "4"})
        row = away.entries.get()
        self.assertEqual(row.day, 4)
        self.assertGreaterEqual(row.place, 20)
        self.assertContains(self.page(away), "Lentil stew")

    def test_what_is_typed_wrong_is_kept_beside_its_reason(self):
        week = self.begin()
        self.put(week, "0-lunch-1", "food-pear-raw")
        for typed, said in (("a lot", "cannot"), ("-3 g", ""), ("", "")):
            with self.subTest(typed=typed):
                shown = self.change(week, "0-lunch-1", {"amount": typed})
                if said:
                    self.assertContains(shown, f'value="{typed}"')
        self.put(week, "0-dinner-0", f"recipe-{self.stew.pk}")
        shown = self.change(week, "0-dinner-0", {"amount": "ninety"}, htmx=False)
        self.assertContains(shown, "is not a count", status_code=400)
        self.assertContains(shown, 'value="ninety"', status_code=400)
        self.assertEqual(week.entries.get(meal="dinner").amount, 1.0)

    def test_a_food_is_weighed_as_it_is_typed(self):
        week = self.begin()
        self.put(week, "0-lunch-1", "food-pear-raw")
        self.change(week, "0-lunch-1", {"amount": "2 medium"})
        row = week.entries.get()
        self.assertGreater(row.amount, 300)
        self.assertLess(row.low_g, row.amount)

    def test_a_stale_change_is_refused_with_what_the_other_did(self):
        week = self.begin()
        self.put(week, "0-dinner-0", f"recipe-{self.stew.pk}")
        old = Week.objects.get(pk=week.pk).version
        self.put(week, "1-dinner-0", f"recipe-{self.soup.pk}")
        address = self.for_client(reverse("week:change", args=[week.pk, "0-dinner-0"]))
        answer = self.post(address, {"version": old, "remove": "1"}, htmx=True)
        self.assertContains(answer, "Bean soup", status_code=409)
        self.assertEqual(week.entries.count(), 2)

    def test_places_that_are_none_change_nothing(self):
        week = self.begin()
        for slot in ("9-dinner-0", "0-brunch-0", "0-dinner-99", "x", "0-dinner-²"):
            with self.subTest(slot=slot):
                answer = self.put(week, slot, f"recipe-{self.stew.pk}")
                self.assertIn(answer.status_code, (404, 409))
        self.assertEqual(self.put(week, "0-dinner-0", "recipe-99999").status_code, 409)
        self.assertEqual(self.put(week, "0-dinner-0", "food-chicken-breast").status_code, 409)
        self.assertFalse(week.entries.exists())

    def test_the_open_place_offers_what_fits_and_what_is_searched(self):
        week = self.begin()
        address = self.for_client(reverse("week:slot", args=[week.pk, "0-dinner-0"]))
        shown = self.client.get(address, headers={"HX-Request": "true"})
        self.assertContains(shown, "Lentil stew")
        self.assertNotContains(shown, "Sesame stew")
        found = self.client.get(f"{address}?q=sesame", headers={"HX-Request": "true"})
        self.assertContains(found, "Sesame stew")
        self.assertContains(found, "does not tolerate")
        self.assertContains(self.client.get(f"{address}?q=zzz"), "Nothing found")

    def test_an_allergen_that_was_put_in_is_a_stop_with_its_day(self):
        week = self.begin()
        self.put(week, "2-dinner-0", f"recipe-{self.sesame.pk}")
        shown = self.page(week)
        self.assertContains(shown, "Stop and ask")
        self.assertContains(shown, "Leave out")


@thorough
class Planning(WeekCase):
    def setUp(self):
        super().setUp()
        # little work is an answer still
        self.enterContext(planned_within(1.0))

    def plan(self, week, **data):
        address = self.for_client(reverse("week:plan", args=[week.pk]))
        answer = self.client.post(address, data)
        work_off_now()
        return answer

    def take(self, week, number=0):
        week = Week.objects.get(pk=week.pk)
        address = self.for_client(reverse("week:take", args=[week.pk]))
        return self.post(address, {"version": week.version, "number": number})

    def test_a_week_is_planned_taken_and_undone(self):
        week = self.begin()
        self.put(week, "1-dinner-0", f"recipe-{self.stew.pk}")
        self.change(week, "1-dinner-0", {"pin": "1"})
        self.plan(week)
        week.refresh_from_db()
        self.assertTrue(week.proposals)
        self.assertContains(self.page(week), "Take this draft")
        self.take(week)
        rows = list(week.entries.all())
        added = [row for row in rows if row.kind == "added"]
        self.assertEqual(len(rows) - len(added), 21)
        # energy was missing, and what was put in for it is told
        self.assertTrue(added)
        self.assertEqual({row.place for row in added}, {19})
        self.assertFalse([row for row in rows if row.recipe_id == self.sesame.pk])
        pinned = week.entries.get(day=1, meal="dinner", place=0)
        self.assertEqual((pinned.recipe_id, pinned.locked), (self.stew.pk, True))
        week.refresh_from_db()
        self.assertEqual(week.proposals, [])
        self.post(self.for_client(reverse("week:undo", args=[week.pk])), {"version": week.version})
        self.assertEqual(week.entries.count(), 1)

    def test_the_search_goes_on_beside_the_page_and_can_be_stopped_and_kept(self):
        week = self.begin()
        address = self.for_client(reverse("week:plan", args=[week.pk]))
        begun = self.post(address, {}, htmx=True)
        self.assertContains(begun, "Planning the week")
        job = Job.objects.get()
        ask = self.for_client(reverse("week:progress", args=[week.pk, job.pk]))
        self.assertContains(
            self.client.get(ask, headers={"HX-Request": "true"}), "waits: about to begin"
        )
        without = self.client.get(ask)
        self.assertContains(without, "Planning the week")
        self.assertEqual(without["Refresh"], f"2; url={ask}")
        # it was asked to stop while it was worked on: the best until then is kept
        Job.objects.update(stop=True)
        self.assertEqual(work_off_now(), 1)
        found = self.client.get(ask, headers={"HX-Request": "true"})
        self.assertContains(found, "Take this draft")
        self.assertContains(found, "Stopped before the search was over")
        Job.objects.all().delete()
        forgotten = self.client.get(ask, headers={"HX-Request": "true"})
        self.assertContains(forgotten, "forgotten")

    def test_what_its_page_would_ask_about_the_whole_week_is_said_before_it_is_taken(self):
        """Beans and fruit bring no vitamin B12, and nothing is taken for it."""
        week = self.begin()
        self.plan(week)
        page = self.page(week)
        week.refresh_from_db()
        (asked, *_more) = week.proposals[0]["asks"]
        self.assertIn("vitamin B12", asked)
        self.assertContains(page, "µg of vitamin B12 a day")

    def test_kinds_that_nothing_may_stand_for_are_named(self):
        week = self.begin(**{f"cell-{day}-dinner": "main, dressing" for day in range(7)})
        self.plan(week)
        address = reverse("week:progress", args=[week.pk, Job.objects.get().pk])
        over = self.client.get(self.for_client(address), follow=True)
        self.assertContains(over, "“dressing”")

    def test_without_targets_it_says_why(self):
        self.client_row.birth_year = date.today().year - 12
        self.client_row.save()
        self.client_row.target_versions.all().delete()
        week = self.begin()
        self.plan(week)
        week.refresh_from_db()
        self.assertEqual(week.proposals, [])

    def test_favorites_are_what_it_is_planned_from(self):
        week = self.begin()
        decided = self.for_client(reverse("week:decided"))
        for kind in ("main", "soup"):
            self.post(decided, {"kind": kind, "key": f"recipe-{self.soup.pk}", "keep": "1"})
        self.plan(week)
        self.take(week)
        recipes = set(week.entries.exclude(recipe=None).values_list("recipe", flat=True))
        self.assertEqual(recipes, {self.soup.pk})

    def test_a_proposal_that_is_gone_is_not_taken(self):
        week = self.begin()
        self.assertEqual(self.take(week, 2).status_code, 409)


class Days(WeekCase):
    def made(self):
        week = self.begin()
        self.put(week, "0-dinner-0", f"recipe-{self.stew.pk}")
        self.put(week, "1-lunch-1", "food-pear-raw")
        self.post(self.for_client(reverse("week:days", args=[week.pk])), {})
        return week

    def test_a_day_made_from_a_week_is_the_planners_and_says_when_it_is_changed(self):
        week = self.made()
        days = Day.objects.filter(from_week__week=week).order_by("date")
        self.assertEqual([day.date for day in days], [week.start, week.start + timedelta(days=1)])
        self.assertEqual(days[0].entries.get().recipe_id, self.stew.pk)
        address = self.for_client(reverse("planner:page", args=[days[0].pk]))
        self.assertContains(self.client.get(address), "as planned")
        days[0].entries.update(amount=2.0)
        self.assertContains(self.client.get(address), "changed from the plan")
        self.assertContains(self.page(week), "changed from the plan")

    def test_a_day_that_was_changed_or_planned_by_itself_is_left_alone(self):
        week = self.made()
        day = Day.objects.get(date=week.start, client=self.client_row)
        day.entries.update(amount=3.0)
        self.change(week, "1-lunch-1", {"amount": "2 medium"})
        self.post(self.for_client(reverse("week:days", args=[week.pk])), {})
        self.assertEqual(day.entries.get().amount, 3.0)
        second = Day.objects.get(date=week.start + timedelta(days=1))
        self.assertEqual(second.entries.get().amount, week.entries.get(day=1).amount)
        self.assertEqual(MadeDay.objects.count(), 2)

    def test_copied_on_every_dish_is_a_day_later_and_what_is_pinned_keeps_its_day(self):
        week = self.begin()
        self.put(week, "0-dinner-0", f"recipe-{self.stew.pk}")
        self.put(week, "6-dinner-0", f"recipe-{self.soup.pk}")
        self.put(week, "3-lunch-1", "food-pear-raw")
        self.change(week, "3-lunch-1", {"pin": "1"})
        self.post(self.for_client(reverse("week:copy", args=[week.pk])), {})
        copy = Week.objects.latest("pk")
        self.assertEqual(copy.start, week.start + timedelta(days=7))
        where = {row.key: row.day for row in copy.entries.all()}
        self.assertEqual(
            where,
            {f"recipe-{self.stew.pk}": 1, f"recipe-{self.soup.pk}": 0, "food-pear-raw": 3},
        )

    def test_a_copied_week_loses_no_dish_to_a_pin(self):
        week = self.begin()
        # what would move onto the place of a pinned dish moves on
        self.put(week, "2-dinner-0", f"recipe-{self.stew.pk}")
        self.put(week, "3-dinner-0", f"recipe-{self.soup.pk}")
        self.change(week, "3-dinner-0", {"pin": "1"})
        self.post(self.for_client(reverse("week:copy", args=[week.pk])), {})
        copy = Week.objects.latest("pk")
        self.assertEqual(copy.entries.count(), week.entries.count())
        self.assertEqual(copy.entries.get(recipe=self.soup).day, 3)

    def test_newer_targets_are_said_and_taken_with_a_click(self):
        week = self.begin()
        self.put(week, "0-dinner-0", f"recipe-{self.stew.pk}")
        row = self.client_row
        TargetOverride.objects.create(
            client=row, key="fiber_g", low=60, aim=65, kind="choice", reason="wish", by=self.user
        )
        TargetOverride.objects.create(
            client=row, key="potassium_mg", high=700, kind="order", reason="letter", by=self.user
        )
        make_version(row, self.user, "letter", date.today())
        page = self.page(week)
        self.assertContains(page, "are newer")
        before = reckon_week(Week.objects.get(pk=week.pk)).plan.day
        self.assertEqual((before["potassium_mg"].high, before["fiber_g"].low == 60), (700, False))
        self.post(
            self.for_client(reverse("week:newer-targets", args=[week.pk])),
            {"version": Week.objects.get(pk=week.pk).version},
        )
        self.assertEqual(reckon_week(Week.objects.get(pk=week.pk)).plan.day["fiber_g"].low, 60)
        self.assertNotContains(self.page(week), "are newer")

    def test_lists_settings_archive_delete_and_back(self):
        week = self.made()
        settings = self.for_client(reverse("week:settings", args=[week.pk]))
        data = {"version": Week.objects.get(pk=week.pk).version, "note": "Harbor week"}
        self.post(settings, data | {"container_ml": "850"})
        self.assertEqual(Week.objects.get(pk=week.pk).container_ml, 850)
        wrong = self.post(settings, data | {"container_ml": "none"})
        self.assertContains(wrong, "Enter a number", status_code=400)
        listed = self.client.get(self.for_client(reverse("week:list")))
        self.assertContains(listed, "Harbor week")
        remove = self.for_client(reverse("week:remove", args=[week.pk]))
        self.post(remove, {})
        self.assertFalse(Week.objects.filter(pk=week.pk).exists())
        self.post(remove, {"back": "1"})
        self.assertTrue(Week.objects.filter(pk=week.pk).exists())
        self.post(self.for_client(reverse("week:archive", args=[week.pk])), {})
        self.assertIsNotNone(Week.objects.get(pk=week.pk).archived)

    def test_weeks_of_nobody_ask_whose(self):
        self.assertContains(self.client.get(reverse("week:list")), "Whose?")
        self.assertEqual(self.client.post(reverse("week:new"), {}).status_code, 302)
        self.assertFalse(Week.objects.exists())

    def test_a_first_day_out_of_reach_is_refused_with_what_was_typed(self):
        for typed in ("0001-01-01", "2399-01-01", "soon", ""):
            with self.subTest(typed=typed):
                answer = self.post(
                    self.for_client(reverse("week:new")), {"start": typed, "days": 7}
                )
                self.assertEqual(answer.status_code, 400)


class Printed(WeekCase):
    def test_pots_ribbons_labels_and_the_door(self):
        week = self.begin(eaters="Mira 1\nJory 0.6, dinner")
        for day in range(5):
            self.put(week, f"{day}-dinner-0", f"recipe-{self.stew.pk}")
        page = self.page(week)
        self.assertContains(page, "Mira (1), Jory (0.6)")
        self.assertContains(page, 'class="ribbon ')
        cooking = self.client.get(self.for_client(reverse("week:cooking", args=[week.pk])))
        # five dinners for 2.6 on a Sunday and a Wednesday
        self.assertContains(cooking, "Osk 1, Mira 1, Jory 0.6")
        self.assertContains(cooking, "Cool it fast.")
        labels = self.client.get(self.for_client(reverse("week:labels", args=[week.pk])))
        self.assertContains(labels, "Lentil stew")
        self.assertContains(labels, "for Osk, Mira, Jory")
        door = self.client.get(self.for_client(reverse("week:door", args=[week.pk])))
        self.assertContains(door, "Lentil stew")

    def test_a_bowls_parts_share_the_pot_with_the_dish_itself(self):
        week = self.begin()
        bowl = Bowl.objects.create(practice=self.practice, name="Stew bowl", vessel_ml=900)
        BowlPart.objects.create(bowl=bowl, role="base", recipe=self.stew, grams=250, place=0)
        self.put(week, "0-dinner-0", f"recipe-{self.stew.pk}")
        self.put(week, "1-dinner-0", f"bowl-{bowl.pk}")
        cooking = self.client.get(self.for_client(reverse("week:cooking", args=[week.pk])))
        self.assertContains(cooking, "in Stew bowl")
        self.assertContains(cooking, ": Lentil stew</h2>", count=1)

    def test_numbers_that_can_harm_stay_off_the_labels(self):
        self.client_row.conditions = ["eating_disorder_history"]
        self.client_row.save()
        week = self.begin()
        self.put(week, "2-dinner-0", f"recipe-{self.stew.pk}")
        self.put(week, "3-dinner-0", f"recipe-{self.stew.pk}")
        labels = self.client.get(self.for_client(reverse("week:labels", args=[week.pk])))
        self.assertContains(labels, "Lentil stew")
        self.assertNotRegex(labels.content.decode(), r"kcal|<div>\d+ g(,|<)")


class Skeletons(WeekCase):
    def test_what_is_typed_wrong_stands_beside_its_cell_and_nothing_is_saved(self):
        address = self.for_client(reverse("week:skeleton"))
        answer = self.post(
            address,
            {
                "cell-0-lunch": "soap",
                "cell-1-lunch": "soup",
                "eaters": "Jory a lot",
                "plants": "many",
                "limit-soup": "x",
            },
        )
        for words in ("What is meant?", "write a name and a portion", "no whole number"):
            self.assertContains(answer, words, status_code=400)
        for kept in ("soap", "Jory a lot", 'value="many"'):
            self.assertContains(answer, kept, status_code=400)
        self.assertFalse(ClientSkeleton.objects.exists())

    def test_it_is_written_as_people_talk_and_a_word_is_asked_about_once(self):
        address = self.for_client(reverse("week:skeleton"))
        cells = {f"cell-{day}-breakfast": "oats, gravel x2" for day in range(7)}
        cells |= {f"cell-{day}-dinner": "bean main" for day in range(7)} | {"cell-5-dinner": "out"}
        asked = self.post(address, cells)
        self.assertContains(asked, "“gravel”", status_code=400)
        self.assertContains(asked, 'name="word-0"', count=1, status_code=400)
        self.assertContains(asked, "and 6 more", status_code=400)
        said = {"word-0": "gravel", "means-0": "topping"}
        self.assertEqual(self.post(address, cells | said).status_code, 302)
        data = ClientSkeleton.objects.get().data
        self.assertEqual(data["days"][0]["meals"]["breakfast"], "breakfast, topping x2")
        self.assertEqual(data["days"][0]["meals"]["dinner"], "main")
        self.assertEqual([day["away"] for day in data["days"]].index(["dinner"]), 5)
        # it is known from then on
        again = self.post(address, {"cell-0-lunch": "gravel", "version": "1"})
        self.assertEqual(again.status_code, 302)

    def test_what_is_likely_meant_is_chosen_already(self):
        address = self.for_client(reverse("week:skeleton"))
        asked = self.post(address, {"cell-0-lunch": "soap"})
        self.assertContains(asked, '<option value="soup" selected>', status_code=400)

    def test_a_stale_skeleton_is_not_saved_over(self):
        address = self.for_client(reverse("week:skeleton"))
        self.post(address, {"cell-0-lunch": "soup"})
        answer = self.post(address, {"cell-0-lunch": "salad", "version": "99"})
        self.assertContains(answer, "Somebody changed this skeleton", status_code=409)
        self.assertContains(answer, "salad", status_code=409)
        self.assertEqual(ClientSkeleton.objects.get().data["days"][0]["meals"]["lunch"], "soup")

    def test_monday_on_every_day_the_schools_and_another_clients(self):
        address = self.for_client(reverse("week:skeleton"))
        same = self.post(address, {"cell-0-lunch": "bowl", "same": "1"})
        self.assertContains(same, ">bowl</textarea>", count=7)
        self.assertContains(self.post(address, {"usual": "1"}), "main, vegetable")
        self.assertFalse(ClientSkeleton.objects.exists())
        self.post(address, {"cell-0-lunch": "beans, greens"})
        other = type(self.client_row).objects.create(
            practice=self.practice,
            name="Wren",
            sex="female",
            birth_year=1990,
            height_cm=170,
            weight_kg=70,
        )
        copied = self.post(
            f"/for/{other.pk}{reverse('week:skeleton-copy')}", {"from": self.client_row.pk}
        )
        self.assertContains(copied, "beans, greens")

    def test_tried_and_kept_are_counted_and_what_is_full_proposes_no_more(self):
        self.begin(**{"limit-soup": "1"})
        page = self.for_client(reverse("week:favorites"))
        decided = self.for_client(reverse("week:decided"))
        self.assertContains(self.client.get(page), "Bean soup")
        self.post(decided, {"kind": "soup", "key": f"recipe-{self.stew.pk}", "refuse": "1"})
        shown = self.post(
            decided, {"kind": "soup", "key": f"recipe-{self.soup.pk}", "keep": "1"}, htmx=True
        )
        self.assertContains(shown, "Tried 2, kept 1")
        self.assertContains(shown, "nothing more is proposed")
        self.assertContains(shown, "Refused (1)")
        row = Favorite.objects.get(recipe=self.stew)
        self.post(decided, {"row": row.pk, "back": "1"})
        self.assertEqual(Favorite.objects.count(), 1)

    def test_the_order_is_the_clients(self):
        self.begin()
        decided = self.for_client(reverse("week:decided"))
        for one in (self.soup, self.stew):
            self.post(decided, {"kind": "main", "key": f"recipe-{one.pk}", "keep": "1"})
        second = Favorite.objects.get(recipe=self.stew)
        self.post(decided, {"row": second.pk, "up": "1"})
        kept = list(Favorite.objects.filter(verdict="kept").values_list("recipe", flat=True))
        self.assertEqual(kept, [self.stew.pk, self.soup.pk])

    def test_an_allergen_cannot_be_planned_with_even_if_it_was_kept(self):
        week = self.begin()
        decided = self.for_client(reverse("week:decided"))
        self.post(decided, {"kind": "main", "key": f"recipe-{self.sesame.pk}", "keep": "1"})
        shown = self.client.get(self.for_client(reverse("week:favorites")))
        self.assertContains(shown, "does not tolerate")
        self.client.post(self.for_client(reverse("week:plan", args=[week.pk])), {})
        week.refresh_from_db()
        planned = {key for one in week.proposals for key, _count in one["planned"].values()}
        self.assertNotIn(f"recipe-{self.sesame.pk}", planned)

    def test_nobodys_weeks_are_another_practices(self):
        week = self.begin()
        self.client.force_login(
            self.other_user, backend="django.contrib.auth.backends.ModelBackend"
        )
        for name in ("page", "cooking", "labels", "door"):
            answer = self.client.get(reverse(f"week:{name}", args=[week.pk]))
            self.assertEqual(answer.status_code, 404, name)
        self.assertEqual(WeekEntry.objects.count(), 0)
