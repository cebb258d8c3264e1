"""The favorites of a client: searched, kept all at once, dropped, taking turns, let in."""

from django.urls import reverse
from django_scopes import scope

from clients.plan.gate import gate_of
from clients.plan.in_force import plan_of
from recipes.models import Recipe
from week.favorites import for_planning, in_turn, offers
from week.models import Favorite
from week.skeletons import skeleton_of
from week.tests.test_week import WeekCase


class Favorites(WeekCase):
    def setUp(self):
        super().setUp()
        self.begin()
        self.address = self.for_client(reverse("week:favorites"))
        self.decided = self.for_client(reverse("week:decided"))

    def kept(self, kind):
        rows = Favorite.objects.filter(client=self.client_row, kind=kind, verdict="kept")
        return [row.key for row in rows]

    def planned_with(self, kind, turns=None):
        plan = plan_of(self.client_row)
        return for_planning(self.client_row, [kind], plan, gate_of(plan), turns)[1][kind]

    def test_anything_is_found_and_kept_for_a_kind_that_it_can_stand_for(self):
        found = self.client.get(self.address, {"q": "lentil"})
        self.assertContains(found, "Keep Lentil stew as")
        self.assertContains(found, '<option value="soup">')
        # what the client must not have is found with why
        self.assertContains(self.client.get(self.address, {"q": "sesame"}), "does not tolerate")
        self.assertContains(self.client.get(self.address, {"q": "zzz"}), "Nothing found")

    def test_all_that_is_proposed_is_kept_at_once_no_more_than_there_may_be(self):
        self.post(self.decided, {"kind": "main", "keep_all": "1"})
        self.assertIn(f"recipe-{self.stew.pk}", self.kept("main"))
        self.assertNotIn(f"recipe-{self.sesame.pk}", self.kept("main"))
        self.assertEqual(self.kept("fruit"), [])
        self.post(self.decided, {"keep_all": "1"})
        self.assertEqual(len(self.kept("fruit")), 4)

    def test_what_is_dropped_may_be_offered_again_what_is_refused_is_not(self):
        for verdict, offered in (("drop", True), ("refuse", False)):
            key = f"recipe-{self.stew.pk}"
            self.post(self.decided, {"kind": "main", "key": key, "keep": "1"})
            row = Favorite.objects.get(client=self.client_row, kind="main", key=key)
            self.post(self.decided, {"kind": "main", "row": row.pk, verdict: "1"})
            self.assertEqual(self.kept("main"), [])
            plan = plan_of(self.client_row)
            some = offers(self.client_row, "main", plan, gate_of(plan), ())
            self.assertEqual(key in [one.key for one in some], offered)

    def test_more_than_a_week_has_take_turns(self):
        keys = [f"food-{slug}" for slug in ("apple-with-skin-raw", "pear-raw", "orange-raw")]
        for key in keys:
            self.post(self.decided, {"kind": "fruit", "key": key, "keep": "1"})
        skeleton = skeleton_of(self.client_row)
        limited = type(skeleton)(**{**skeleton.__dict__, "limits": {**skeleton.limits, "fruit": 2}})
        weeks = [self.planned_with("fruit", (limited, turn)) for turn in range(3)]
        self.assertEqual(weeks, [keys[:2], [keys[2], keys[0]], keys[1:]])
        self.assertEqual(self.planned_with("fruit"), keys)
        self.assertEqual(in_turn([], 2, 5), [])

    def beans_with_tahini(self, **whose):
        """A dish that this client, allergic to sesame, must not have."""
        self.client_row.allergies = ["sesame"]
        self.client_row.save()
        with scope(practice=self.practice):
            return Recipe.objects.create(
                practice=self.practice,
                title="Beans with tahini",
                role="protein",
                servings=4,
                cooked_by="simmered",
                text="3 cups white beans, cooked\n1 tbsp tahini\n1 tbsp lemon juice",
                **whose,
            )

    def test_what_is_left_out_says_why_and_is_let_in_with_a_click(self):
        salty = self.beans_with_tahini()
        page = self.client.get(self.address)
        self.assertContains(page, "Beans with tahini")
        self.assertContains(page, f'name="let_in" value="{salty.pk}"')
        self.post(self.decided, {"kind": "main", "let_in": salty.pk})
        (key,) = self.kept("main")
        copy = Recipe.objects.get(pk=int(key.removeprefix("recipe-")))
        self.assertEqual((copy.client, copy.origin), (self.client_row, salty))
        self.assertNotIn("tahini", copy.text)
        self.assertIn("3 cups white beans, cooked", copy.text)
        # the dish itself is as it was, and what is gone cannot be let in
        salty.refresh_from_db()
        self.assertIn("tahini", salty.text)
        answer = self.post(self.decided, {"kind": "main", "let_in": 99999}, htmx=True)
        self.assertContains(answer, "can no longer be made")

    def test_a_recipe_of_the_clients_own_is_changed_in_its_place(self):
        own = self.beans_with_tahini(client=self.client_row)
        self.post(self.decided, {"kind": "main", "let_in": own.pk})
        self.assertEqual(self.kept("main"), [f"recipe-{own.pk}"])
        before = own.version
        own.refresh_from_db()
        self.assertEqual((own.title, own.version), ("Beans with tahini", before + 1))
        self.assertNotIn("tahini", own.text)
