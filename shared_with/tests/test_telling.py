"""What a client sees by their link, and what they tell by it."""

import json
from datetime import timedelta

from django.urls import reverse
from django.utils import timezone

from clients.models import WeighIn
from journal.models import Felt, LoggedEntry
from planner.models import Day, DayEntry
from shared_with.addresses import address_of
from shared_with.models import Told
from shared_with.tests.test_door import LinkCase
from shopping.models import Bought
from week.models import Week


class Seen(LinkCase):
    def today(self, **asked):
        return self.phone.get(address_of(self.link), asked)

    def plan_today(self, recipe=None):
        day = Day.objects.create(
            practice=self.practice, client=self.client_row, date=timezone.localdate()
        )
        return DayEntry.objects.create(day=day, meal="dinner", recipe=recipe or self.stew, amount=1)

    def test_todays_meals_as_plates_in_household_measures(self):
        self.plan_today()
        page = self.today()
        self.assertContains(page, "Dinner")
        self.assertContains(page, "Lentil stew")
        self.assertContains(page, "1\xa0serving")
        self.assertContains(page, 'class="round small')
        for words in ("kcal", "mg", "%"):
            self.assertNotContains(page, f" {words}")

    def test_a_day_of_a_week_where_no_day_was_made(self):
        self.begin(start=timezone.localdate())
        week = Week.objects.latest("pk")
        self.put(week, "0-dinner-0", f"recipe-{self.stew.pk}")
        self.assertContains(self.today(), "Lentil stew")
        tomorrow = timezone.localdate() + timedelta(days=1)
        page = self.today(on=tomorrow.isoformat())
        self.assertNotContains(page, "Lentil stew")
        self.assertNotContains(page, "As planned")

    def test_what_is_to_be_asked_about_is_withheld_in_kind_words(self):
        self.plan_today(self.sesame)
        self.client_row.allergies = ["sesame"]
        self.client_row.save()
        page = self.today()
        self.assertContains(page, "We are looking at your plan once more")
        for words in ("Sesame", "sesame", "allerg", "Stop"):
            self.assertNotContains(page, words)

    def test_no_day_further_off_than_a_week(self):
        today = timezone.localdate()
        for days, status in ((-8, 404), (-7, 200), (7, 200), (8, 404)):
            page = self.today(on=(today + timedelta(days=days)).isoformat())
            self.assertEqual(page.status_code, status, days)
        self.assertEqual(self.today(on="soon").status_code, 404)

    def test_the_calendar_for_a_calendar_that_looks_for_itself(self):
        answer = self.phone.get(address_of(self.link, "calendar"))
        self.assertEqual(answer["Content-Type"], "text/calendar; charset=utf-8")
        self.assertIn(b"BEGIN:VCALENDAR", answer.content)

    def test_the_list_is_ticked_once_however_often_it_is_sent(self):
        self.begin(start=timezone.localdate())
        week = Week.objects.latest("pk")
        self.put(week, "0-dinner-0", f"recipe-{self.stew.pk}")
        page = self.phone.get(address_of(self.link, "shopping"))
        self.assertContains(page, "entils")
        address = f"{address_of(self.link, 'shopping')}{week.pk}/tick/"
        found = page.context["found"]
        line = found.trips[0].sections[0][1][0]
        for _ in range(3):
            answer = self.phone.post(
                address, {"key": line.key, "on": "1"}, headers={"Accept": "application/json"}
            )
            self.assertEqual(answer.json(), {"key": line.key, "on": True, "known": True})
        self.assertEqual(Bought.objects.filter(week=week).count(), 1)


class Telling(LinkCase):
    def tell(self, *rows, status=200):
        answer = self.phone.post(
            address_of(self.link, "told"), json.dumps(rows), content_type="application/json"
        )
        self.assertEqual(answer.status_code, status)
        return answer.json()

    def row(self, name="p123456789", **more):
        return {"name": name, "kind": "weight", "on": f"{timezone.localdate()}"} | more

    def dinner(self):
        day = Day.objects.create(
            practice=self.practice, client=self.client_row, date=timezone.localdate()
        )
        entry = DayEntry.objects.create(day=day, meal="dinner", recipe=self.stew, amount=2)
        return entry, f"day-{entry.pk}"

    def test_a_weight_is_theirs_until_somebody_has_seen_it(self):
        said = self.tell(self.row(kg="96.4"))
        self.assertEqual(said, {"taken": ["p123456789"], "refused": {}})
        row = WeighIn.objects.get()
        self.assertEqual((row.kg, row.remark), (96.4, "told by the client"))
        links = self.for_client(reverse("shared_with:links"))
        self.assertContains(self.client.get(links), "own, not seen")
        page = self.client.get(reverse("clients:page", args=[self.client_row.pk]))
        self.assertContains(page, "They told 1 thing by their link")
        told = Told.objects.get()
        self.post(self.for_client(reverse("shared_with:seen")), {"told": [told.pk]})
        told.refresh_from_db()
        self.assertEqual(told.seen_by, self.user)
        self.assertNotContains(self.client.get(links), "own, not seen")

    def test_what_is_sent_again_is_told_once(self):
        for _ in range(3):
            self.tell(self.row(kg="96.4"), self.row(kg="96.4"))
        self.assertEqual(Told.objects.count(), 1)
        self.assertEqual(WeighIn.with_removed.count(), 1)

    def test_pounds(self):
        self.tell(self.row(lb="212.5"))
        self.assertEqual(WeighIn.objects.get().kg, 96.39)

    def test_a_weight_far_off_is_held_back_and_one_that_cannot_be_refused(self):
        on = timezone.localdate()
        for days in range(1, 8):
            WeighIn.objects.create(
                client=self.client_row, date=on - timedelta(days=days), kg=96.0 + days / 10
            )
        self.tell(self.row(kg="69.4"))
        self.assertIn("far off", Told.objects.get().held)
        self.assertFalse(WeighIn.objects.filter(date=on).exists())
        for kg in ("9", "nothing", ""):
            said = self.tell(self.row(name="q" * 12, kg=kg))
            self.assertEqual(list(said["refused"]), ["q" * 12])

    def test_what_the_practice_wrote_down_is_not_overwritten(self):
        on = timezone.localdate()
        WeighIn.objects.create(client=self.client_row, date=on, kg=95.0)
        self.tell(self.row(kg="96.4"))
        self.assertEqual(WeighIn.objects.get(date=on).kg, 95.0)
        self.assertIn("already", Told.objects.get().held)

    def test_as_planned_less_instead_and_another_word_later(self):
        entry, key = self.dinner()
        self.tell(self.row("a" * 10, kind="ate", dish=key, how="planned"))
        row = LoggedEntry.objects.get()
        self.assertEqual((row.of_entry, row.amount, row.how), (entry, 2, "as planned"))
        self.tell(self.row("b" * 10, kind="ate", dish=key, how="less"))
        row = LoggedEntry.objects.get()
        self.assertEqual((row.amount, row.how), (1, "less"))
        # nobody said how much less: a quarter to three quarters of the two that were planned
        self.assertEqual((row.low, row.high), (0.5, 1.5))
        self.tell(self.row("c" * 10, kind="ate", dish=key, how="instead", text="2 apples"))
        rows = {(one.how, one.food) for one in LoggedEntry.objects.all()}
        self.assertIn("apple", next(food for how, food in rows if how == "instead"))
        self.assertEqual(Told.objects.count(), 3)

    def test_a_dish_of_a_week_without_a_day(self):
        self.begin(start=timezone.localdate())
        week = Week.objects.latest("pk")
        self.put(week, "0-dinner-0", f"recipe-{self.stew.pk}")
        key = f"week-{week.entries.get().pk}"
        self.tell(self.row("a" * 10, kind="ate", dish=key, how="planned"))
        self.tell(self.row("b" * 10, kind="ate", dish=key, how="less"))
        row = LoggedEntry.objects.get()
        self.assertEqual((row.recipe, row.how, row.meal), (self.stew, "less", "dinner"))

    def test_how_it_felt(self):
        self.tell(self.row(kind="felt", hunger="3", energy="7", sleep="11"))
        row = Felt.objects.get()
        self.assertEqual((row.hunger, row.energy, row.sleep), (3, 7, None))
        said = self.tell(self.row("n" * 10, kind="felt"))
        self.assertIn("0 to 10", said["refused"]["n" * 10])

    def test_days_too_long_ago_or_to_come_are_refused(self):
        today = timezone.localdate()
        for at, (days, well) in enumerate(((-61, False), (-60, True), (0, True), (1, False))):
            row = self.row(f"day-{at}-xxxx", kg="96.4", on=f"{today + timedelta(days=days)}")
            self.assertEqual(bool(self.tell(row)["taken"]), well, days)

    def test_no_weights_from_whom_they_can_harm(self):
        self.client_row.light_words = True
        self.client_row.save()
        self.assertIn("p123456789", self.tell(self.row(kg="96.4"))["refused"])
        self.assertNotContains(self.phone.get(address_of(self.link, "tell")), "Your weight")

    def test_anything_else_that_is_sent_breaks_nothing(self):
        for rows in ([1, None, "x", []], [{}], [{"name": "x"}], [{"name": ["a"], "kind": {}}]):
            self.tell(*rows)
        odd = [{"kg": {}}, {"kg": [1]}, {"on": 3}, {"at": "soon"}, {"at": -1e99}, {"text": 7}]
        for at, more in enumerate(odd):
            self.tell(self.row(f"odd-{at}-xxxxx", **more))
            self.tell(self.row(f"ate-{at}-xxxxx", kind="ate", how="instead", **more))
        address = address_of(self.link, "told")
        for body in ("{", "[" * 50_000, "x" * 100_001):
            answer = self.phone.post(address, body, content_type="application/json")
            self.assertEqual(answer.status_code, 400)

    def test_without_script_a_form_tells_too(self):
        _entry, key = self.dinner()
        data = {"kind": "ate", "name": "1764-form-x", "dish": key, "how": "planned", "on": ""}
        told = self.phone.post(address_of(self.link, "told"), data)
        self.assertRedirects(told, address_of(self.link), fetch_redirect_response=False)
        self.assertEqual(LoggedEntry.objects.get().how, "as planned")
        refused = self.phone.post(
            address_of(self.link, "told"), {"kind": "weight", "name": "1764-form-y", "kg": "heavy"}
        )
        self.assertContains(refused, "as a number", status_code=400)
        self.assertContains(refused, "heavy", status_code=400)
