"""Clients: the list that says who needs attention, the working page, targets by hand and by
version, stale saves."""

from datetime import timedelta

from django.urls import reverse
from django.utils import timezone

from clients.models import CautionDismissal, Client, TargetOverride, WeighIn
from clients.plan.attention import judged_now, reasons, weekly_pace
from clients.plan.in_force import NOBODY, plan_of
from clients.plan.strip import others, strip
from clients.plan.versions import make_version
from clients.testing import ClientCase
from nutrition.composition.foods import food_table

NO_SUPPLEMENTS = {"supplements-TOTAL_FORMS": "0", "supplements-INITIAL_FORMS": "0"}


# Whose order it is: the clinician's, not who types it.
ORDER = {"kind": "order", "given_by": "S. Rao", "license": "RD 4471"}


class Clients(ClientCase):
    def form(self, **changes):
        row = self.client_row
        names = (
            "name",
            "about",
            "sex",
            "birth_year",
            "height_cm",
            "weight_kg",
            "activity",
            "goal",
            "life_stage",
            "formula",
            "weight_basis",
            "meals",
            "school",
            "condition_notes",
            "notes",
            "version",
        )
        return (
            {name: getattr(row, name) for name in names}
            | {"allergies": ["sesame"]}
            | NO_SUPPLEMENTS
            | changes
        )

    def weigh(self, *kilograms, every=3, last_days_ago=0):
        today = timezone.localdate()
        for i, kg in enumerate(reversed(kilograms)):
            WeighIn.objects.create(
                client=self.client_row,
                date=today - timedelta(days=last_days_ago + i * every),
                kg=kg,
            )

    def test_attention(self):
        today = timezone.localdate()
        self.assertEqual(str(reasons(self.client_row, today)[0]), "Not weighed yet")
        self.weigh(*(100 + 0.1 * (at % 3) for at in range(14)))
        self.assertTrue(any("Not losing" in str(one) for one in reasons(self.client_row, today)))
        self.client_row.weigh_ins.all().delete()
        self.weigh(108, 105, 102, 99, every=7)
        pace = weekly_pace(judged_now(self.client_row, today))
        self.assertTrue(pace.low < -3.0 < pace.high < -1.5)
        self.assertTrue(any("more than 1 %" in str(one) for one in reasons(self.client_row, today)))
        self.client_row.weigh_ins.all().delete()
        self.weigh(100, last_days_ago=20)
        self.assertIn("Last weighed 20 days ago", map(str, reasons(self.client_row, today)))
        self.assertContains(self.client.get("/clients/"), "Last weighed 20 days ago")

    def address(self, name, *args):
        return reverse(f"clients:{name}", args=[self.client_row.pk, *args])

    def test_bad_input_says_so_beside_the_field_and_keeps_what_was_typed(self):
        response = self.client.post(
            self.address("edit"), self.form(name="Ilse Varga", height_cm="900")
        )
        self.assertContains(response, "Height 900 cm is not possible")
        self.assertContains(response, 'value="Ilse Varga"')
        self.assertContains(response, 'value="900"')
        self.assertFalse(Client.objects.filter(name="Ilse Varga").exists())
        for field, value, message in (
            ("target_weight_kg", "120", "the target weight is below"),
            ("pace_kg_per_week", "9", "A pace is 0 to 3 kg"),
            ("weight_basis", "target", "Give a target weight"),
            ("formula", "measured", "Give 600 to 8000 kcal"),
            ("life_stage", "pregnant_2", "need the female equations"),
        ):
            with self.subTest(field):
                self.assertContains(
                    self.client.post(self.address("edit"), self.form(**{field: value})), message
                )

    def test_a_person_whom_the_formulas_do_not_cover_is_stored_and_referred(self):
        data = self.form(birth_year=timezone.localdate().year - 16)
        self.assertEqual(self.client.post(self.address("edit"), data).status_code, 302)
        page = self.client.get(self.address("page"))
        self.assertContains(page, "pediatric dietitian")
        self.assertContains(page, "nothing here is computed for children")
        self.assertEqual(plan_of(Client.objects.get()).rows, {})
        # a number from the physician's letter can still be set, and holds
        self.client.post(self.address("target", "protein_g"), self.by_hand(low=60, aim=70) | ORDER)
        self.assertEqual(list(plan_of(Client.objects.get()).rows), ["protein_g"])

    def test_a_stale_save_is_refused_with_both_versions(self):
        address = self.address("edit")
        self.assertEqual(self.client.post(address, self.form(about="first")).status_code, 302)
        refused = self.client.post(address, self.form(about="second"))
        self.assertContains(refused, "first", status_code=409)
        self.assertContains(refused, "second", status_code=409)
        self.client_row.refresh_from_db()
        self.assertEqual((self.client_row.about, self.client_row.version), ("first", 2))
        self.assertEqual(
            self.client.post(address, self.form(about="second", version=2)).status_code, 302
        )

    def by_hand(self, **changes):
        data = {
            "kind": "order",
            "reason": "Nephrology letter",
            "takes_effect": timezone.localdate(),
        }
        return data | changes

    def low(self, key="protein_g", on=None):
        return plan_of(Client.objects.get(), on=on).rows[key].target.low

    def test_weigh_ins_move_targets_only_when_new_ones_are_made(self):
        make_version(self.client_row, self.user, "First visit")
        self.weigh(96)
        self.assertAlmostEqual(self.low(), 1.2 * 100)
        self.assertContains(
            self.client.get(self.address("page")), "4 % away from the one the targets were made for"
        )
        later = timezone.localdate() + timedelta(days=3)
        self.client.post(self.address("retarget"), {"takes_effect": later, "why": "Lighter now"})
        self.assertAlmostEqual(self.low(), 120)
        self.assertAlmostEqual(self.low(on=later), 1.2 * 96)
        page = self.client.get(self.address("page"))
        for text in ("version 2: Lighter now", "Targets 2, from", "First visit"):
            self.assertContains(page, text)
        self.client.post(self.address("retarget"), {"takes_effect": later, "why": "Again"})
        self.assertEqual(
            self.client_row.target_versions.count(), 2, "the same targets are no new version"
        )
        response = self.client.post(
            self.address("weigh-in"), {"date": timezone.localdate(), "kg": "9"}
        )
        self.assertContains(response, "outside 30 to 300 kg", status_code=400)

    def test_a_number_set_by_hand_wins_and_the_computed_one_stays_visible(self):
        address = self.address("target", "protein_g")
        self.client.post(address, self.by_hand(low=60, aim=65, high=70) | ORDER)
        row = plan_of(self.client_row).rows["protein_g"]
        self.assertEqual((row.target.low, row.target.aim, row.target.high), (60, 65, 70))
        self.assertAlmostEqual(row.computed.low, 120)
        page = self.client.get(self.address("page"))
        for text in (
            "60–70 g, aim 65",
            "computed: 120–",
            "Nephrology letter",
            "A clinician",
            "a clinician&#x27;s order stands over",
            "S. Rao, RD 4471",
        ):
            self.assertContains(page, text)
        asked = self.client.post(self.address("use-computed", "protein_g"))
        self.assertContains(asked, "Stop and ask", status_code=409)
        self.client.post(self.address("use-computed", "protein_g"), {"confirm": "1"})
        self.assertIsNone(plan_of(self.client_row).rows["protein_g"].override)
        self.assertEqual(
            TargetOverride.objects.filter(client=self.client_row).count(), 1, "the history is kept"
        )
        self.assertEqual(self.client_row.target_versions.count(), 2)

    def test_all_targets_are_there_on_request(self):
        page = self.client.get(self.address("page"))
        self.assertContains(page, "All the other targets")
        self.assertContains(page, "11 mg x 1.5 on plants alone = 16.5 mg, at most 40 mg")
        self.assertContains(page, "without the factor it is 11 mg")
        plan, tofu = plan_of(self.client_row), food_table()["tofu-firm"].profile(200)
        self.assertEqual(
            [row.key for row in strip(plan, tofu)],
            ["energy_kcal", "protein_g", "fiber_g", "sodium_mg"],
        )
        self.assertGreater(len(others(plan, tofu)), 35)

    def test_which_targets_stand_in_the_strip(self):
        self.client.post(self.address("watched"), {"watched": ["iron_mg", "pral_meq", "protein_g"]})
        self.client_row.refresh_from_db()
        kale = food_table()["kale-raw"].profile(100)
        self.assertEqual(
            [row.key for row in strip(plan_of(self.client_row), kale)],
            ["iron_mg", "protein_g"],
            "no band, no target",
        )
        self.client.post(
            self.address("edit"), self.form(school="kidney_gentle", has_condition=["ckd_3"])
        )
        rows = {row.key: row for row in strip(plan_of(Client.objects.get()), kale)}
        self.assertEqual(rows["pral_meq"].word, "inside")
        self.client.post(self.address("watched"), {"usual": "1"})
        self.assertIn(
            "phosphorus_mg", [row.key for row in strip(plan_of(Client.objects.get()), kale)]
        )
        too_many = [row.target.key for row in plan_of(Client.objects.get()).others][:12]
        self.assertContains(
            self.client.post(self.address("watched"), {"watched": too_many}, follow=True),
            "holds 7 targets at most",
        )

    def test_a_school_and_a_condition_that_disagree(self):
        self.client.post(
            self.address("edit"), self.form(school="strength", has_condition=["ckd_4"])
        )
        page = self.client.get(self.address("page"))
        for text in (
            "Where sources disagree",
            "kidney disease, stage 4",
            "Strength says",
            "a condition stands over the school",
            "No least at a meal",
        ):
            self.assertContains(page, text)
        self.assertContains(page, "far more protein than kidney disease allows")

    def test_supplements_are_kept_with_dose_form_and_how_often(self):
        rows = {
            "supplements-TOTAL_FORMS": "2",
            "supplements-INITIAL_FORMS": "0",
            "supplements-0-key": "vitamin_b12_ug",
            "supplements-0-dose": "1000",
            "supplements-0-form": "cyanocobalamin",
            "supplements-0-per_week": "2",
            "supplements-1-key": "",
            "supplements-1-dose": "",
            "supplements-1-per_week": "7",
        }
        self.assertEqual(
            self.client.post(self.address("edit"), self.form() | rows).status_code, 302
        )
        self.assertContains(
            self.client.get(self.address("page")),
            "Vitamin B12 1000 µg (cyanocobalamin), 2 times a week",
        )
        wrong = rows | {"supplements-0-dose": "-4"}
        self.assertContains(
            self.client.post(self.address("edit"), self.form(version=2) | wrong),
            "greater than or equal to",
        )

    def test_shares_of_the_meals(self):
        self.client.post(self.address("shares"), {"breakfast": "20", "lunch": "50", "dinner": "30"})
        self.assertEqual(
            [round(meal.share, 2) for meal in plan_of(Client.objects.get()).day.meals],
            [0.2, 0.5, 0.3],
        )
        refused = self.client.post(
            self.address("shares"), {"breakfast": "20", "lunch": "20", "dinner": "20"}
        )
        self.assertContains(refused, "add up to 60 %", status_code=400)
        self.client.post(
            self.address("shares"), {"breakfast": "20", "lunch": "50", "dinner": "30", "usual": "1"}
        )
        self.assertEqual(
            [meal.share for meal in plan_of(Client.objects.get()).day.meals], [0.3, 0.35, 0.35]
        )

    def test_a_caution_is_put_aside_for_one_client_with_who_and_why(self):
        second = Client.objects.create(
            practice=self.practice,
            name="Second",
            sex="male",
            birth_year=1980,
            height_cm=180,
            weight_kg=80,
        )
        text = "No vitamin B12 supplement is recorded"
        self.assertContains(self.client.get(self.address("page")), f"<strong>{text}")
        without_reason = self.client.post(
            self.address("dismiss"), {"code": "no_b12_supplement", "why": " "}, follow=True
        )
        self.assertContains(without_reason, "Say why")
        self.client.post(
            self.address("dismiss"),
            {
                "code": "no_b12_supplement",
                "why": "Takes a spray",
                "next": "https://elsewhere.example/",
            },
        )
        page = self.client.get(self.address("page"))
        self.assertNotContains(page, f"<strong>{text}")
        for kept in ("1 put aside", text, "marin", "Takes a spray"):
            self.assertContains(page, kept)
        self.assertContains(
            self.client.get(reverse("clients:page", args=[second.pk])), f"<strong>{text}"
        )
        self.client.post(self.address("bring-back", CautionDismissal.objects.get().pk))
        page = self.client.get(self.address("page"))
        self.assertContains(page, f"<strong>{text}")
        self.assertContains(page, "Caution brought back")
        self.assertEqual(
            self.client.post(self.address("dismiss"), {"code": "nonsense", "why": "x"}).status_code,
            404,
        )

    def test_a_target_needs_a_reason_and_a_band_around_its_aim(self):
        address = self.address("target", "potassium_mg")
        for data, message in (
            ({"low": 3000, "aim": 2000}, "above the aim"),
            ({"aim": 2000, "high": 1000}, "below the aim"),
            ({"aim": 2000}, "Give a least"),
            ({"aim": 2000, "high": 2400, "reason": ""}, "This field is required"),
        ):
            with self.subTest(message):
                self.assertContains(self.client.post(address, self.by_hand(**data)), message)
        self.assertEqual(self.client.get(self.address("target", "nonsense")).status_code, 404)

    def test_the_strip_says_it_in_words(self):
        plan = plan_of(self.client_row)
        profile = food_table()["tofu-firm"].profile(200, 190, 210)
        rows = {row.key: row for row in strip(plan, profile)}
        self.assertRegex(rows["protein_g"].word, r"^under by 101 g$")
        self.assertEqual(rows["sodium_mg"].word, "inside")
        self.assertEqual(strip(NOBODY, profile), [])
        part = food_table()["walnuts"].profile(50) + food_table()["gochujang"].profile(10)
        self.assertRegex(
            {row.key: row for row in strip(plan, part)}["protein_g"].word,
            r"^under by up to 112 g$",
        )
        self.assertEqual({row.key: row for row in others(plan, part)}["iodine_ug"].word, "unknown")
        over = food_table()["salt"].profile(10)
        self.assertRegex(
            {row.key: row for row in strip(plan, over)}["sodium_mg"].word, "over by 1,5"
        )

    def test_the_client_stands_in_the_address_and_nowhere_else(self):
        self.client.get(reverse("clients:page", args=[self.client_row.pk]))
        self.assertNotContains(self.client.get("/recipes/"), "This page is for")
        page = self.client.get(self.for_client("/recipes/"))
        self.assertContains(page, "This page is for")
        self.assertContains(page, f'href="{self.for_client("/bowls/")}"')
        self.assertEqual(self.client.get("/for/999/recipes/").status_code, 404)


class Held(ClientCase):
    def test_where_no_loss_is_planned_holding_is_offered(self):
        Client.objects.filter(pk=self.client_row.pk).update(goal="lose", weight_kg=60)
        address = reverse("clients:page", args=[self.client_row.pk])
        self.assertContains(self.client.get(address), "Lose weight is not planned")
        self.client.post(reverse("clients:hold", args=[self.client_row.pk]))
        self.client_row.refresh_from_db()
        self.assertEqual(self.client_row.goal, "hold")
        self.assertNotContains(self.client.get(address), "is not planned")
