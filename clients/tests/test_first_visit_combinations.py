"""A first visit is kept whatever is ticked: every condition with every school, life stage and
goal."""

from itertools import cycle, islice, product

from django.test import SimpleTestCase
from django.urls import reverse

from clients.models import Client, Intake
from clients.testing import ClientCase
from clients.tests.test_intake import PERSON
from nutrition.targets.conditions import conditions, of_the_kidneys
from nutrition.targets.day import day_targets
from nutrition.targets.person import GOAL_WORDS, LIFE_STAGE_WORDS, Person, Referred
from nutrition.targets.schools import schools
from nutrition.targets.watched_targets import watched_keys
from nutrition.tests.thorough import thorough

CODES = [code for code in conditions() if code != "over_65"]
SCHOOLS = ["", *schools()]
# For these nothing is computed: they are referred.
REFERRED = (
    *("active_eating_disorder", "little_eaten_10_days", "lost_15_percent"),
    *("low_electrolytes", "pku", "protein_disorder"),
)


def referred(code, stage):
    """Whether nothing is computed: for the condition, or for kidneys while carrying or nursing."""
    return code in REFERRED or (stage != "adult" and code in of_the_kidneys())


class Combinations(ClientCase):
    @thorough
    def test_every_condition_with_every_school_is_kept_and_answered(self):
        """Life stages and goals go round beside them, so that each meets each."""
        self.client.post("/clients/new/")
        intake = Intake.objects.get()
        keep = reverse("clients:keep-intake", args=[intake.pk])
        around = cycle(product(LIFE_STAGE_WORDS, GOAL_WORDS))
        for code, school in product(CODES, SCHOOLS):
            stage, goal = next(around)
            kind = f"has_{conditions()[code].kind}"
            asked = PERSON | {kind: [code], "school": school, "life_stage": stage, "goal": goal}
            with self.subTest(code=code, school=school, stage=stage, goal=goal):
                answer = self.post(keep, asked, htmx=True)
                self.assertContains(answer, "Saved at")
                intake.refresh_from_db()
                self.assertEqual((intake.data[kind], intake.data["school"]), ([code], [school]))
                if not referred(code, stage):
                    self.assertContains(answer, "<dt>Protein</dt>")

    def test_a_client_with_kidney_disease_and_no_school_is_made_by_going_on(self):
        for code in ("ckd_1", "ckd_2", "ckd_3", "ckd_4", "ckd_5"):
            self.client.post("/clients/new/")
            intake = Intake.objects.filter(client=None).get()
            address = reverse("clients:intake", args=[intake.pk])
            person = PERSON | {"has_condition": [code], "name": code}
            self.assertRedirects(self.client.post(address, person | {"later": "1"}), "/clients/")
            self.assertContains(self.client.get(address), "So far")
            self.client.post(address, person | {"finish": "1"})
            client = Client.objects.get(name=code)
            self.assertEqual(
                [row.kg for row in client.weigh_ins.all()],
                [66],
                "the weight of the first visit is the first weigh-in",
            )
            self.assertEqual(
                self.client.get(reverse("clients:page", args=[client.pk])).status_code, 200
            )

    def test_a_second_click_makes_no_second_client(self):
        self.client.post("/clients/new/")
        address = reverse("clients:intake", args=[Intake.objects.get().pk])
        for _ in range(2):
            self.client.post(address, PERSON | {"finish": "1"})
        self.assertEqual(Client.objects.filter(name="Tove Calder").count(), 1)

    def test_two_who_write_one_first_visit(self):
        self.client.post("/clients/new/")
        intake = Intake.objects.get()
        keep = reverse("clients:keep-intake", args=[intake.pk])
        self.post(
            keep, {"name": "Tove Calder", "notes": "Likes barley", "visit_version": "1"}, htmx=True
        )
        stale = self.post(
            keep, {"name": "Tove Kalder", "notes": "", "visit_version": "1"}, htmx=True
        )
        self.assertContains(stale, "Likes barley", status_code=409)
        self.assertContains(stale, "Tove Kalder", status_code=409)
        intake.refresh_from_db()
        self.assertEqual(intake.data["notes"], ["Likes barley"])
        self.post(
            keep,
            {"name": "Tove Kalder", "notes": "", "visit_version": str(intake.version)},
            htmx=True,
        )
        intake.refresh_from_db()
        self.assertEqual(intake.data["name"], ["Tove Kalder"], "once it was seen it can be decided")

    def test_what_one_page_keeps_after_another_of_its_own_is_no_conflict(self):
        self.client.post("/clients/new/")
        intake = Intake.objects.get()
        keep = reverse("clients:keep-intake", args=[intake.pk])
        for notes in ("barley", "barley, kale"):
            # the answer to the first was lost: the version is the old one
            sent = {"name": "Tove Calder", "notes": notes, "visit_version": "1"}
            self.client.post(keep, sent, headers={"HX-Request": "true", "Page-Id": "one"})
        intake.refresh_from_db()
        self.assertEqual(intake.data["notes"], ["barley, kale"])
        sent["notes"] = "rye"
        other = self.client.post(keep, sent, headers={"HX-Request": "true", "Page-Id": "two"})
        self.assertContains(other, "barley, kale", status_code=409)


@thorough
class Watched(SimpleTestCase):
    def test_what_is_watched_is_there_or_left_out_for_every_combination(self):
        """What the first visit shows beside the form: targets that exist. Every fifth of all, so
        that each condition meets each school, and each of both each life stage and goal."""
        count = 0
        every = product(CODES, SCHOOLS, LIFE_STAGE_WORDS, GOAL_WORDS)
        for code, school, stage, goal in islice(every, 0, None, 5):
            person = Person(
                sex="female",
                age_years=34,
                height_cm=171,
                weight_kg=66,
                activity="low_active",
                goal=goal,
                life_stage=stage,
                conditions=frozenset({code}),
            )
            try:
                day = day_targets(person, schools().get(school))
            except Referred:
                self.assertTrue(referred(code, stage), (code, stage))
                continue
            shown = [key for key in watched_keys(person, day.school) if key in day.targets]
            self.assertGreaterEqual(len(shown), 4, (code, school, stage, goal))
            count += 1
        self.assertGreater(count, 1700)
