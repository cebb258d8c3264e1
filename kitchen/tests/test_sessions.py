"""Sessions: begun, planned, changed, moved by hand, read, printed."""

from datetime import timedelta

from django.urls import reverse

from kitchen.models import CookingSession, StepReading, Stove
from kitchen.planning import timeline_in
from kitchen.tests.kitchen_case import KitchenCase
from nutrition.prep.timeline.schedule import Row
from week.models import Week


class Begun(KitchenCase):
    def test_from_dishes_that_were_ticked(self):
        session = self.begin_session()
        self.assertEqual(
            [dish["recipe_id"] for dish in session.dishes], [self.recipes[0].pk, self.recipes[1].pk]
        )
        found = timeline_in(session.plan)
        self.assertIsInstance(found.rows[0], Row)
        self.assertTrue(all(1105 <= at <= 1110 for at in found.ready.values()))
        page = self.client.get(self.at("page", session.pk))
        self.assertContains(page, "Roast the carrots with the caraway at 200 °C for 30 minutes")
        self.assertContains(page, 'class="stove"')
        self.assertContains(page, "proved")

    def test_from_a_day_of_the_week_with_its_pots_put_away(self):
        week = self.begin()
        for day in (0, 1, 3):
            self.put(week, f"{day}-dinner-0", f"recipe-{self.recipes[0].pk}")
        listing = self.client.get(self.at("list"))
        self.assertContains(listing, "Barley pot")
        on = Week.objects.get(pk=week.pk).start - timedelta(days=1)
        answer = self.post(self.at("new"), {"batch": f"{week.pk}.{on:%Y-%m-%d}"})
        session = CookingSession.objects.get()
        self.assertRedirects(answer, self.at("page", session.pk))
        self.assertEqual((session.week_id, session.day), (week.pk, on))
        (dish,) = session.dishes
        self.assertEqual((dish["stored"], dish["containers"]), (True, 3))
        self.assertAlmostEqual(dish["servings"], 3.0)
        away = self.step(session, "Weigh it, divide it into 3 containers")
        self.assertEqual(away["hands"], 3)
        # two servings fewer than the recipe: less leek to cut, and said in this pot's amounts
        self.assertIn("leek", self.step(session, "Get ready")["text"])
        self.assertNotIn("1 leek, sliced", self.step(session, "Get ready")["text"])
        # a liter or so cools by itself; four times of it does not
        shown = self.client.get(self.at("page", session.pk))
        self.assertNotContains(shown, "Cool it fast")
        larger = self.change_session(session, dish="d1", servings="12", stored="1", containers="8")
        self.assertContains(larger, "Cool it fast")
        # planned already, it is opened again
        self.assertContains(self.client.get(self.at("list")), "Its")

    def test_nothing_ticked_and_times_that_cannot_be_are_refused_with_what_was_typed(self):
        first = self.recipes[0].pk
        for data, said in (
            ({"day": "2026-12-05", "ready_at": "18:30", "earliest": "16:00"}, "Tick at least one"),
            (
                {"day": "2399-01-01", "ready_at": "18:30", "earliest": "16:00", "recipe": first},
                "within the last",
            ),
            (
                {"day": "2026-12-05", "ready_at": "soon", "earliest": "16:00", "recipe": first},
                "valid time",
            ),
            (
                {"day": "2026-12-05", "ready_at": "18:30", "earliest": "00:10", "recipe": first},
                "within 18 hours",
            ),
        ):
            with self.subTest(said=said):
                answer = self.post(self.at("new"), data)
                self.assertContains(answer, said, status_code=400)
        self.assertFalse(CookingSession.objects.exists())

    def test_who_eats_at_one_in_the_night_begins_the_evening_before(self):
        session = self.begin_session(ready="01:00", earliest="22:00")
        self.assertEqual((session.ready_at, session.earliest), (60, -120))
        self.assertTrue(session.plan["rows"])

    def test_nobodys_kitchen_asks_whose(self):
        self.assertContains(self.client.get(reverse("kitchen:list")), "Whose?")
        self.assertEqual(self.post(reverse("kitchen:new"), {}).status_code, 302)

    def test_a_recipe_without_steps_is_named(self):
        session = self.begin_session([self.soup])
        self.assertContains(self.client.get(self.at("page", session.pk)), "has no steps")


class Changed(KitchenCase):
    def test_another_hour_moves_everything(self):
        session = self.begin_session()
        before = {row["text"]: row["start"] for row in self.rows(session)}
        self.change_session(session, day="2026-12-05", ready_at="19:00", earliest="16:30")
        after = {row["text"]: row["start"] for row in self.rows(session)}
        self.assertEqual({text: at + 30 for text, at in before.items()}, after)

    def test_a_dish_more_less_and_at_its_own_time(self):
        session = self.begin_session()
        self.change_session(session, add=self.recipes[2].pk)
        keys = [dish["key"] for dish in CookingSession.objects.get().dishes]
        self.assertEqual(keys, ["d1", "d2", "d3"])
        soak = self.step(session, "Soak the beans")
        self.assertLess(soak["start"], 0)
        self.change_session(
            session, dish="d1", servings="6", dish_ready="17:30", stored="1", containers="4"
        )
        row = CookingSession.objects.get()
        self.assertEqual(
            row.dishes[0] | {"pot_day": None},
            row.dishes[0]
            | {"servings": 6.0, "ready_at": 1050, "stored": True, "containers": 4, "pot_day": None},
        )
        self.assertLessEqual(row.plan["ready"]["d1"], 1050)
        self.change_session(session, dish="d2", remove="1")
        self.assertEqual(
            [dish["key"] for dish in CookingSession.objects.get().dishes], ["d1", "d3"]
        )
        for wrong, said in (
            ({"dish": "d1", "servings": "many"}, "Servings: a number up to 200."),
            ({"dish": "d9", "servings": "2"}, "That dish is no longer there."),
            ({"dish": "d1", "servings": "2", "dish_ready": "99:99"}, "is no time of day"),
            ({"add": "999999"}, "That dish cannot be added."),
        ):
            self.assertContains(self.change_session(session, **wrong), said)
        self.assertEqual(CookingSession.objects.get().dishes[0]["servings"], 6.0)

    def test_a_stale_change_is_refused_with_what_is_stored(self):
        session = self.begin_session()
        answer = self.post(
            self.at("change", session.pk), {"version": 0, "dish": "d1", "remove": "1"}, True
        )
        self.assertEqual(answer.status_code, 409)
        self.assertEqual(len(CookingSession.objects.get().dishes), 2)

    def test_a_step_moved_by_hand_stays_and_the_rest_goes_around_it(self):
        session = self.begin_session()
        roast = self.step(session, "Roast")
        moved = self.post(
            self.at("move", session.pk),
            {
                "task": f"{roast['dish']} {roast['task']}",
                "start": roast["start"] - 10,
                "version": session.version,
            },
            True,
        )
        self.assertContains(moved, "1 moved by hand")
        self.assertEqual(self.step(session, "Roast")["start"], roast["start"] - 10)
        row = CookingSession.objects.get()
        # where the rest would not fit it is refused, and nothing changes
        late = self.post(
            self.at("move", session.pk),
            {"task": f"{roast['dish']} {roast['task']}", "start": 1109, "version": row.version},
            True,
        )
        self.assertContains(late, "would not fit around it")
        self.assertEqual(CookingSession.objects.get().pins, row.pins)
        self.post(self.at("move", session.pk), {"free": "1", "version": row.version}, True)
        self.assertEqual(self.step(session, "Roast")["start"], roast["start"])
        self.assertEqual(CookingSession.objects.get().pins, {})

    def test_a_step_that_is_not_there(self):
        session = self.begin_session()
        for task in ("d9 0", "d1 99", "d1 x", ""):
            answer = self.post(self.at("move", session.pk), {"task": task, "start": 1000}, True)
            self.assertContains(answer, "no longer there")

    def test_the_stove_of_the_client(self):
        answer = self.post(
            self.at("stove"), {"cooks": 1, "burners": 0, "ovens": 0, "shelves": 0, "blenders": 0}
        )
        self.assertEqual(answer.status_code, 302)
        session = self.begin_session()
        page = self.client.get(self.at("page", session.pk))
        self.assertContains(page, "It needs a burner, and there is none.")
        self.assertContains(page, "It needs an oven, and there is none.")
        for wrong in ({"cooks": 0}, {"burners": 13}, {"cooks": "x"}):
            data = {"cooks": 1, "burners": 4, "ovens": 1, "shelves": 2, "blenders": 1} | wrong
            self.assertEqual(self.post(self.at("stove"), data).status_code, 400)
        self.assertEqual(Stove.objects.get().burners, 0)

    def test_taken_away_and_brought_back(self):
        session = self.begin_session()
        self.post(self.at("remove", session.pk), {})
        self.assertFalse(CookingSession.objects.exists())
        self.assertContains(self.client.get(self.at("page", session.pk)), "took this session away")
        self.post(self.at("remove", session.pk), {"back": "1"})
        self.assertTrue(CookingSession.objects.exists())


class Printed(KitchenCase):
    def test_the_prep_sheet_has_the_evening_before(self):
        session = self.begin_session(self.recipes)
        sheet = self.client.get(self.at("sheet", session.pk))
        self.assertContains(sheet, "Friday, December 4, in the evening")
        self.assertContains(sheet, "Soak the beans overnight")
        self.assertContains(sheet, "Saturday, December 5")
        self.assertContains(sheet, "into the sink")


class Read(KitchenCase):
    def right(self, recipe, **data):
        return self.post(self.at("right", recipe.pk), data)

    def test_what_was_read_stands_beside_the_text(self):
        page = self.client.get(self.at("steps", self.recipes[0].pk))
        for words in ("Simmer 35 minutes", "35 min", "burner", "Get ready: 1 leek, sliced"):
            self.assertContains(page, words)

    def test_put_right_it_holds_for_sessions_and_can_be_left_as_it_was_read(self):
        recipe = self.recipes[0]
        self.right(recipe, words="simmer 35 minutes", alone="50", hands="2")
        self.assertEqual(StepReading.objects.get().data, {"alone": 50.0, "hands": 2.0})
        session = self.begin_session([recipe])
        simmer = [row for row in self.rows(session) if row["text"] == "Simmer 35 minutes"]
        self.assertEqual(simmer[-1]["end"] - simmer[-1]["start"], 50)
        self.assertContains(self.client.get(self.at("steps", recipe.pk)), "Put right by hand")
        self.right(recipe, words="simmer 35 minutes", as_read="1")
        self.assertFalse(StepReading.objects.exists())

    def test_what_cannot_be_is_refused_beside_its_field(self):
        recipe = self.recipes[0]
        answer = self.right(recipe, words="simmer 35 minutes", alone="-1", celsius="900")
        self.assertContains(answer, "greater than or equal to 0", status_code=400)
        self.assertContains(answer, "less than or equal to 260", status_code=400)
        self.right(recipe, words="no such step", alone="5")
        self.assertFalse(StepReading.objects.exists())
