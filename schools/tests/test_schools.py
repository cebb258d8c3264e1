"""The schools side by side, and a practice's own copies: changed, refused, taken away, brought
back."""

from urllib.parse import urlencode

from django.http import QueryDict

from nutrition.targets.schools import school_data, schools
from practice.testing import PracticeCase
from schools.choices import school_choices, school_named
from schools.editing import differing, from_post, problems, rows_of
from schools.models import OwnSchool


def as_form(data, **changes):
    """What the browser sends of a school's form."""
    rows = rows_of(data)
    sent = {
        "name": data["name"],
        "leads": data["leads"],
        "typical_day": data["typical_day"],
        "starch_reason": data["starch_reason"],
        "watched": data["watched"],
        "starch_order": ", ".join(data["starch_order"]),
    }
    sent |= {f"pace-{name}": str(value) for name, value in data["pace"].items()}
    columns = {
        "targets": ("key", "per", "low", "aim", "high", "reason", "source"),
        "foods": ("class", "stance", "reason", "source"),
        "plate": ("part", "classes", "share", "reason", "source"),
        "habits": ("name", "classes", "least_g", "most_g", "reason", "source"),
        "meals": ("name", "what"),
    }
    for section, names in columns.items():
        sent[f"{section}-was"] = [str(at) for at, _row in rows[section]]
        for name in names:
            sent[f"{section}-{name}"] = [str(row.get(name, "")) for _at, row in rows[section]]
    return sent | changes


class Editing(PracticeCase):
    def read(self, data, **changes):
        return from_post(QueryDict(urlencode(as_form(data, **changes), doseq=True)), data)

    def test_every_school_comes_back_from_its_form_as_it_was(self):
        for code, data in school_data().items():
            with self.subTest(code):
                self.assertEqual(problems(code, self.read(data)), {})
                for section in ("targets", "foods", "plate", "habits", "pace", "watched"):
                    self.assertEqual(self.read(data)[section], data[section], section)

    def test_what_is_wrong_is_told_by_its_section(self):
        data = school_data()["balanced_plate"]
        for changes, section in (
            ({"name": ""}, "name"),
            ({"pace-lose": "fast"}, "pace"),
            ({"pace-lose": "1.6"}, "pace"),
            ({"plate-share": ["0.9"] * len(data["plate"]) + [""]}, "plate"),
            ({"foods-stance": ["love"] * len(data["foods"]) + [""]}, "foods"),
            ({"habits-least_g": ["many"] * len(data["habits"]) + [""]}, "habits"),
        ):
            with self.subTest(changes=section):
                self.assertEqual(list(problems("own", self.read(data, **changes))), [section])

    def test_a_row_whose_first_column_is_empty_is_taken_out(self):
        data = school_data()["balanced_plate"]
        keys = ["" for _row in data["targets"]] + [""]
        self.assertEqual(self.read(data, **{"targets-key": keys})["targets"], [])

    def test_what_differs_is_told_row_by_row(self):
        data = school_data()["balanced_plate"]
        mine = data | {"name": "Ours", "foods": data["foods"][1:]}
        told = {name: (theirs, own) for name, theirs, own in differing(data, mine)}
        self.assertEqual(set(told), {"name", "foods"})
        self.assertEqual(told["name"], (data["name"], "Ours"))
        self.assertEqual(told["foods"][1], "")


class Pages(PracticeCase):
    def own(self):
        self.post("/schools/balanced_plate/copy/", {})
        return OwnSchool.objects.get()

    def test_side_by_side_and_line_by_line(self):
        page = self.client.get("/schools/").content.decode()
        for school in schools().values():
            self.assertIn(school.name, page)
            self.assertEqual(self.client.get(f"/schools/{school.code}/").status_code, 200)
        for address in ("/schools/none/", "/schools/none:1/", "/schools/balanced_plate:9/"):
            self.assertEqual(self.client.get(address).status_code, 404)

    def test_a_copy_is_changed_and_chosen(self):
        own = self.own()
        self.assertEqual((own.base, own.by), ("balanced_plate", self.user))
        sent = as_form(own.data, name="Harbor plate", version="1")
        answer = self.post(f"/schools/own/{own.pk}/", sent)
        self.assertRedirects(answer, f"/schools/{own.code}/")
        own.refresh_from_db()
        self.assertEqual((own.name, own.version), ("Harbor plate", 2))
        self.assertIn((own.code, "Harbor plate (own copy)"), school_choices())
        self.assertEqual(school_named(own.code).name, "Harbor plate")
        self.assertNotEqual(schools()["balanced_plate"].name, "Harbor plate")

    def test_a_copy_of_a_copy(self):
        own = self.own()
        self.post(f"/schools/{own.code}/copy/", {})
        second = OwnSchool.objects.exclude(pk=own.pk).get()
        self.assertEqual(second.base, "balanced_plate")
        self.assertEqual(self.post("/schools/balanced_plate:999/copy/", {}).status_code, 404)

    def test_what_cannot_be_keeps_what_was_typed(self):
        own = self.own()
        sent = as_form(own.data, **{"pace-lose": "fast", "version": "1"})
        answer = self.post(f"/schools/own/{own.pk}/", sent)
        self.assertContains(answer, 'value="fast"', status_code=400)
        own.refresh_from_db()
        self.assertEqual(own.version, 1)

    def test_a_stale_save_shows_what_differs(self):
        own = self.own()
        self.post(f"/schools/own/{own.pk}/", as_form(own.data, name="First", version="1"))
        answer = self.post(f"/schools/own/{own.pk}/", as_form(own.data, name="Second", version="1"))
        self.assertContains(answer, "First", status_code=409)
        own.refresh_from_db()
        self.assertEqual(own.name, "First")

    def test_taken_away_it_still_holds_for_whom_it_was_chosen_and_comes_back(self):
        own = self.own()
        page = self.client.post(f"/schools/own/{own.pk}/remove/", {}, follow=True)
        self.assertContains(page, "is taken away")
        self.assertNotIn(own.code, dict(school_choices()))
        self.assertIsNotNone(school_named(own.code))
        self.client.post(f"/schools/own/{own.pk}/remove/", {"back": "1"})
        self.assertIn(own.code, dict(school_choices()))

    def test_another_practices_copy_does_not_exist(self):
        own = self.own()
        self.client.force_login(
            self.other_user, backend="django.contrib.auth.backends.ModelBackend"
        )
        for address in (f"/schools/own/{own.pk}/", f"/schools/{own.code}/"):
            self.assertEqual(self.client.get(address).status_code, 404)
        self.assertEqual(self.post(f"/schools/own/{own.pk}/remove/", {}).status_code, 404)
