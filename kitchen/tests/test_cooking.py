"""Cooking a session: what is told while it is cooked, the rest planned around it, what came out."""

from datetime import UTC, datetime, timedelta

from django.utils import timezone

from kitchen.models import Box, CookingSession, PotMeasure, StepTime
from kitchen.progress import Event, event_in, progress_in, take, told
from kitchen.tests.kitchen_case import KitchenCase
from kitchen.weighing import learned_of

NOW = datetime(2026, 12, 5, 16, 0, tzinfo=UTC)


class Told(KitchenCase):
    def key(self, row):
        return f"{row['dish']} {row['task']} {row['part']}"

    def test_the_page_has_the_whole_session(self):
        session = self.begin_session()
        page = self.client.get(self.at("cook", session.pk))
        self.assertContains(page, "cook-plan")
        self.assertContains(page, "Caraway carrots")
        self.assertContains(page, "500 g")

    def test_an_event_that_comes_twice_is_known(self):
        session = self.begin_session()
        row = self.rows(session)[1]
        event = {"id": "a", "kind": "done", "about": self.key(row), "at": 0}
        told = self.tell(session, event, event).json()
        again = self.tell(session, event).json()
        self.assertEqual(told["done"], again["done"])
        self.assertEqual(list(told["done"]), [self.key(row)])
        undone = self.tell(session, {"id": "b", "kind": "undone", "about": self.key(row)}).json()
        self.assertEqual(undone["done"], {})

    def test_two_tablets_tell_at_once_and_nothing_is_lost(self):
        session = self.begin_session()
        first, second = self.rows(session)[:2]
        one, other = (CookingSession.objects.get(pk=session.pk) for _tablet in range(2))
        now = timezone.now()
        for row, step, key in ((one, first, "a"), (other, second, "b")):
            told(row, [Event(key=key, kind="done", about=self.key(step), at=now)], now)
        session.refresh_from_db()
        self.assertEqual(set(session.progress["done"]), {self.key(first), self.key(second)})
        self.assertEqual(self.tell(session).json()["known"], ["a", "b"])
        version = CookingSession.objects.get(pk=session.pk).version
        self.tell(session)
        self.assertEqual(CookingSession.objects.get(pk=session.pk).version, version)

    def test_it_took_longer_on_two_tablets_and_both_count(self):
        session = self.begin_session()
        simmer = self.step(session, "Simmer 35 minutes")
        one, other = (CookingSession.objects.get(pk=session.pk) for _tablet in range(2))
        now = session.at(simmer["start"] + 1)
        for row, key in ((one, "a"), (other, "b")):
            event = Event(key=key, kind="longer", about=self.key(simmer), at=now, minutes=5)
            told(row, [event], now)
        session.refresh_from_db()
        both = {f"{simmer['dish']} {simmer['task']}": 10}
        self.assertEqual(progress_in(session.progress).longer, both)

    def test_it_took_longer_and_the_rest_moves(self):
        session = self.begin_session(
            day=f"{timezone.localdate():%Y-%m-%d}", ready="23:50", earliest="20:00"
        )
        simmer = self.step(session, "Simmer 35 minutes")
        ready = dict(CookingSession.objects.get().plan["ready"])
        begun = [
            {
                "id": f"{at}",
                "kind": "done",
                "about": self.key(row),
                "at": session.at(row["start"] + row["hands"]).timestamp() * 1000,
            }
            for at, row in enumerate(self.rows(session))
            if row["start"] <= simmer["start"] and row["hands"] and row["dish"] == simmer["dish"]
        ]
        self.tell(session, *begun)
        told = self.tell(
            session, {"id": "x", "kind": "longer", "about": self.key(simmer), "minutes": 10}
        ).json()
        row = CookingSession.objects.get()
        self.assertEqual(
            progress_in(row.progress).longer, {f"{simmer['dish']} {simmer['task']}": 10}
        )
        self.assertGreaterEqual(row.plan["ready"][simmer["dish"]], ready[simmer["dish"]] + 9)
        self.assertEqual(told["late"], row.plan["late"])

    def test_what_took_longer_is_learned_when_it_ended(self):
        session = self.begin_session()
        simmer = self.step(session, "Simmer 35 minutes")
        self.tell(session, {"id": "1", "kind": "longer", "about": self.key(simmer), "minutes": 10})
        self.assertFalse(StepTime.objects.exists())
        self.tell(session, {"id": "2", "kind": "ended"})
        self.tell(session, {"id": "3", "kind": "ended"})
        (row,) = StepTime.objects.all()
        self.assertEqual((row.words, row.minutes), ("simmer 35 minutes", 45.0))
        later = self.begin_session([self.recipes[0]])
        rows = [one for one in self.rows(later) if one["text"] == "Simmer 35 minutes"]
        self.assertEqual(rows[-1]["end"] - rows[-1]["start"], 45)

    def test_hostile_events_change_nothing(self):
        session = self.begin_session()
        before = CookingSession.objects.get().progress
        for odd in (
            None,
            7,
            [],
            {},
            {"id": 1, "kind": "done"},
            {"id": "x", "kind": "burn"},
            {"id": "x" * 61, "kind": "done"},
            {"id": "x", "kind": "done", "about": ["a"]},
        ):
            self.assertEqual(self.tell(session, odd).status_code, 200)
        self.assertEqual(progress_in(CookingSession.objects.get().progress).done, {})
        self.assertEqual(progress_in(before).done, {})
        answer = self.client.post(self.at("events", session.pk), "{", "application/json")
        self.assertEqual(answer.status_code, 400)
        huge = self.client.post(
            self.at("events", session.pk), "[" + " " * 100_001 + "]", "application/json"
        )
        self.assertEqual(huge.status_code, 400)

    def test_without_script_one_thing_is_told_by_a_form(self):
        session = self.begin_session()
        key = self.key(self.rows(session)[1])
        answer = self.post(self.at("events", session.pk), {"id": "f", "kind": "done", "about": key})
        self.assertRedirects(answer, self.at("cook", session.pk))
        self.assertIn(key, CookingSession.objects.get().progress["done"])

    def test_a_clock_that_is_far_off_is_not_believed(self):
        for at, believed in (
            (NOW - timedelta(hours=47), True),
            (NOW - timedelta(hours=49), False),
            (NOW + timedelta(hours=49), False),
        ):
            event = event_in({"id": "x", "kind": "done", "at": at.timestamp() * 1000}, NOW)
            self.assertEqual(event.at == at, believed, at)
        self.assertEqual(event_in({"id": "x", "kind": "longer", "minutes": 999}, NOW).minutes, 240)

    def test_longer_and_shorter_add_up_and_never_below_nothing(self):
        session = CookingSession(progress={})
        for at, minutes in enumerate((5, 5, -20)):
            take(
                session,
                [Event(key=f"{at}", kind="longer", about="d1 3 0", at=NOW, minutes=minutes)],
            )
        self.assertEqual(progress_in(session.progress).longer, {"d1 3": 0})


class Weighed(KitchenCase):
    def session(self):
        week = self.begin()
        for day in (0, 1, 3):
            self.put(week, f"{day}-dinner-0", f"recipe-{self.recipes[0].pk}")
        self.post(
            self.at("new"), {"batch": self.client.get(self.at("list")).context["batch_days"][0].key}
        )
        return CookingSession.objects.get()

    def weigh(self, session, **data):
        return self.post(self.at("weigh", session.pk), {"dish": "d1"} | data)

    def test_a_pot_that_gave_less_is_divided_by_weight_and_says_whom_it_misses(self):
        session = self.session()
        self.weigh(session, grams="1100", tare="200")
        measure = PotMeasure.objects.get()
        self.assertEqual((measure.grams, measure.made_for), (900, 3))
        page = self.client.get(self.at("weigh", session.pk))
        self.assertContains(page, "3 of 300 g")
        boxes = list(Box.objects.all())
        self.assertEqual([box.grams for box in boxes], [300, 300, 300])
        self.assertEqual([box.servings for box in boxes], [1.0, 1.0, 1.0])
        # the barley pot keeps; what is eaten after it does comes from the freezer
        self.assertTrue(all(box.eaten_on for box in boxes))
        self.assertContains(self.client.get(self.at("labels", session.pk)), "300 g", count=3)
        # weighed again its containers are those of the new weight
        self.weigh(session, grams="1200")
        self.assertEqual(PotMeasure.objects.count(), 1)
        self.assertEqual([box.grams for box in Box.objects.all()], [400, 400, 400])

    def test_the_recipe_learns_the_median_and_takes_it_when_told(self):
        session = self.session()
        recipe = self.recipes[0]
        self.weigh(session, grams="900")
        # three servings of four: 1,200 g as written
        self.assertEqual(learned_of(recipe).grams, 1200)
        PotMeasure.objects.create(recipe=recipe, made_for=4, grams=1000, by=self.user)
        PotMeasure.objects.create(recipe=recipe, made_for=4, grams=2000, by=self.user)
        self.assertEqual((learned_of(recipe).grams, learned_of(recipe).count), (1200, 3))
        self.post(self.at("learn", recipe.pk), {})
        recipe.refresh_from_db()
        self.assertEqual(recipe.batch_g, 1200)

    def test_what_cannot_be_weighed_so(self):
        session = self.session()
        for data, said in (
            ({"grams": "100", "tare": "100"}, "weighs less than the full one"),
            ({"grams": "x"}, "Enter a number"),
        ):
            answer = self.weigh(session, **data)
            self.assertContains(answer, said, status_code=400)
        self.assertFalse(PotMeasure.objects.exists())

    def test_pieces_of_a_mix(self):
        page = self.client.get(self.at("pieces"), {"mix_g": "200", "wanted": "5", "said_g": "27"})
        self.assertContains(page, "Wring out 65 g")
        self.assertEqual(self.client.get(self.at("pieces"), {"mix_g": "0"}).status_code, 400)
        self.assertContains(self.client.get(self.at("pieces")), "five of 27 g")
