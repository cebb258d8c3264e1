"""A client's kitchen with recipes whose steps are written."""

import json

from django.urls import reverse

from kitchen.models import CookingSession
from recipes.models import Recipe
from week.tests.test_week import WeekCase

RECIPES = {
    "Barley pot": (
        "1 cup pearl barley, dry\n1 leek, sliced\n4 cups water\n1 tbsp lemon juice",
        "Sweat the leek in a little water for 6 minutes. Add the barley and the water, simmer 35 "
        "minutes. Lemon last.",
    ),
    "Caraway carrots": (
        "500 g carrots, in sticks\n1 tsp caraway seeds",
        "Roast the carrots with the caraway at 200 °C for 30 minutes, turning at half time.",
    ),
    "White bean mash": (
        "1 cup white beans, dry\n1 tbsp lemon juice",
        "Soak the beans overnight. Simmer them an hour. Mash with the lemon.",
    ),
}


class KitchenCase(WeekCase):
    def setUp(self):
        super().setUp()
        self.recipes = [
            Recipe.objects.create(
                practice=self.practice,
                title=title,
                role="dish",
                servings=4,
                text=text,
                method=method,
                cooked_by="simmered",
            )
            for title, (text, method) in RECIPES.items()
        ]

    def at(self, name, *args):
        return self.for_client(reverse(f"kitchen:{name}", args=args))

    def begin_session(self, recipes=None, ready="18:30", earliest="16:00", day=None):
        chosen = self.recipes[:2] if recipes is None else recipes
        data = {
            "day": day or "2026-12-05",
            "ready_at": ready,
            "earliest": earliest,
            "recipe": [one.pk for one in chosen],
        }
        answer = self.post(self.at("new"), data)
        self.assertEqual(answer.status_code, 302, answer.content[:2000])
        return CookingSession.objects.latest("pk")

    def change_session(self, session, **data):
        version = CookingSession.objects.get(pk=session.pk).version
        return self.post(self.at("change", session.pk), {"version": version} | data, True)

    def rows(self, session):
        return CookingSession.objects.get(pk=session.pk).plan["rows"]

    def step(self, session, start):
        return next(row for row in self.rows(session) if row["text"].startswith(start))

    def tell(self, session, *events):
        """Events as the cook page sends them."""
        return self.client.post(
            self.at("events", session.pk), json.dumps(list(events)), "application/json"
        )
