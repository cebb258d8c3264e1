"""Balance in the application and from a terminal: proposals, taken in part, undone; locks, limits
and allergens hold."""

import json
import re
from io import StringIO
from pathlib import Path
from tempfile import TemporaryDirectory

from django.core.management import CommandError, call_command
from django.urls import reverse

from bowls.models import BowlPart
from bowls.testing import BowlCase

BOWL = {
    "parts": [
        {
            "id": "base",
            "food": "barley cooked",
            "grams": 200,
            "min_grams": 100,
            "max_grams": 320,
            "step_grams": 20,
        },
        {
            "id": "beans",
            "food": "white-beans-cooked",
            "grams": 100,
            "min_grams": 60,
            "max_grams": 200,
            "step_grams": 20,
        },
        {"id": "seeds", "food": "pumpkin seeds", "grams": 10, "locked": True},
    ],
    "targets": {
        "protein_g": {"min": 18, "aim": 20, "max": 40, "weight": 2},
        "sodium_mg": {"max": 300, "aim": 100, "hard": True},
    },
}


class Balancing(BowlCase):
    def grams(self):
        return {str(row.pk): row.grams for row in BowlPart.objects.filter(bowl=self.bowl)}

    def take(self, data, htmx=False):
        return self.post(
            reverse("bowls:balance", args=[self.bowl.pk]),
            {"version": self.bowl.version} | data,
            htmx,
        )

    def proposals(self, **asked):
        page = self.client.get(
            reverse("bowls:balance", args=[self.bowl.pk]), asked, headers={"HX-Request": "true"}
        )
        return page, dict(re.findall(r'name="grams-(\d+)" value="([\d.]+)"', page.content.decode()))

    def test_half_of_a_proposal_is_taken_and_undone(self):
        before = self.grams()
        page, offered = self.proposals(meal="dinner")
        self.assertContains(page, "Closes")
        self.assertContains(page, 'class="ghost"')
        self.assertGreater(len(offered), 1)
        pk, grams = next(iter(offered.items()))
        self.take({"take": pk} | {f"grams-{one}": value for one, value in offered.items()})
        after = self.grams()
        self.assertAlmostEqual(after[pk], float(grams))
        self.assertEqual(
            {one: value for one, value in after.items() if one != pk},
            {one: before[one] for one in before if one != pk},
        )
        self.post(reverse("bowls:undo", args=[self.bowl.pk]), {})
        self.assertEqual(self.grams(), before)

    def test_what_cannot_be_used_changes_nothing(self):
        before = self.grams()
        for grams in ("nan", "-1", "1e9", "much", "inf"):
            self.take({"take": str(self.tofu.pk), f"grams-{self.tofu.pk}": grams})
        self.assertEqual(self.grams(), before)

    def test_a_proposal_for_what_was_there_before_is_refused(self):
        self.post(reverse("bowls:change", args=[self.bowl.pk, self.kale.pk]), {"amount": "55 g"})
        before = self.grams()
        page = self.take({"take": str(self.tofu.pk), f"grams-{self.tofu.pk}": "200"}, htmx=True)
        self.assertContains(page, "balance it again")
        self.assertEqual(self.grams(), before)

    def test_a_locked_part_stays_and_its_limits_hold(self):
        change = reverse("bowls:change", args=[self.bowl.pk, self.tofu.pk])
        self.post(change, {"lock": "1"})
        self.assertNotIn(str(self.tofu.pk), self.proposals(meal="dinner")[1])
        self.post(change, {"lock": "1"})
        limits = reverse("bowls:limits", args=[self.bowl.pk, self.tofu.pk])
        self.post(limits, {"least_g": "150", "most_g": "160"})
        offered = self.proposals(meal="dinner")[1].get(str(self.tofu.pk), "150")
        self.assertTrue(150 <= float(offered) <= 160)

    def test_a_limit_is_answered_by_the_proposals_made_anew_or_beside_what_was_typed(self):
        limits = reverse("bowls:limits", args=[self.bowl.pk, self.tofu.pk])
        asked = f"{limits}?asked=1&meal=dinner"
        panel = self.post(asked, {"least_g": "210", "most_g": ""}, htmx=True)
        self.assertContains(panel, 'id="balance"')
        self.assertContains(panel, 'value="210"')
        self.tofu.refresh_from_db()
        self.assertEqual((self.tofu.least_g, self.tofu.most_g), (210, None))
        for least, most, said in (
            ("a lot", "", "not a weight in grams"),
            ("200", "100", "not over the most"),
            ("-5", "", "must be zero or more"),
        ):
            with self.subTest(least=least, most=most):
                panel = self.post(asked, {"least_g": least, "most_g": most}, htmx=True)
                self.assertContains(panel, said)
                self.assertContains(panel, f'value="{least}"')
                self.tofu.refresh_from_db()
                self.assertEqual(self.tofu.least_g, 210, "nothing wrong is kept")
        back = self.post(asked, {"least_g": "205"})
        proposals = reverse("bowls:balance", args=[self.bowl.pk])
        self.assertTrue(back["Location"].endswith(f"{proposals}?asked=1&meal=dinner"))
        page = self.post(limits, {"least_g": "a lot"})
        self.assertContains(page, "not a weight in grams", status_code=400)
        self.tofu.delete()
        gone = self.post(asked, {"least_g": "1"}, htmx=True)
        self.assertEqual((gone.status_code, gone["HX-Retarget"]), (409, "#work"))

    def test_what_the_client_does_not_tolerate_is_left_out(self):
        tahini = BowlPart.objects.create(
            bowl=self.bowl, role="sauce", food="tahini", grams=30, place=3
        )
        page, offered = self.proposals(meal="dinner")
        self.assertContains(page, "every proposal leaves it out")
        self.assertEqual(float(offered[str(tahini.pk)]), 0)


class Command(BowlCase):
    def test_command(self):
        with TemporaryDirectory() as folder:
            path = Path(folder) / "bowl.json"
            path.write_text(json.dumps(BOWL), encoding="utf-8")
            out = StringIO()
            call_command("balance", str(path), "--json", stdout=out)
            told = json.loads(out.getvalue())
            self.assertEqual(told["status"], "optimal")
            self.assertEqual(told["portions"]["seeds"], 10)
            out = StringIO()
            call_command("balance", str(path), stdout=out)
            self.assertIn("Proved", out.getvalue())
            path.write_text("{", encoding="utf-8")
            with self.assertRaises(CommandError):
                call_command("balance", str(path))
