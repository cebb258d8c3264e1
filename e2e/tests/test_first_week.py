"""From the sign-in of an empty practice to a first client's first week, in few clicks."""

import re

from django_scopes import scopes_disabled
from playwright.sync_api import expect

from e2e.case import BrowserCase
from e2e.tests.test_effort import COUNT
from jobs.testing import working
from practice.models import Practice, User
from practice.roles import OWNER
from recipes.models import Recipe
from week.models import Week
from week.testing import planned_within

MOST_CLICKS = 25
# Enough for a plan that is none of a draft.
SOME_WORK = 4.0
PASSWORD = "gull-rock-lantern"


class FirstWeek(BrowserCase):
    def test_an_empty_practice_comes_to_a_sensible_week(self):
        practice = Practice.objects.create(name="Lantern Quay")
        User.objects.create_user("wren", password=PASSWORD, practice=practice, role=OWNER)
        page = self.page
        self.context.clear_cookies()
        page.add_init_script(COUNT)
        self.open("/sign-in/")
        page.evaluate("sessionStorage.clear()")
        page.get_by_label("Name").fill("wren")
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        page.get_by_role("button", name="Write down the first client").click()
        self.type_new_client()
        page.get_by_role("link", name="Week", exact=True).click()
        page.get_by_role("button", name="Begin a week").click()
        page.get_by_role("button", name=re.compile("^Copy the dishes")).click()
        expect(page.get_by_text("of the shelf.")).to_be_visible()
        page.get_by_role("button", name="Plan the week").click()
        with planned_within(SOME_WORK), working():
            take = page.get_by_role("button", name="Take this week").first
            expect(take).to_be_visible()
        take.click()
        expect(page.locator("#proposals")).to_have_count(0)
        clicks = int(page.evaluate("sessionStorage.getItem('counted-click')") or 0)
        self.assertLessEqual(clicks, MOST_CLICKS)
        with scopes_disabled():
            week = Week.objects.get(practice=practice)
            rows = list(week.entries.all())
            self.assertGreater(Recipe.objects.filter(practice=practice).count(), 50)
            dinners = [row.recipe_id for row in rows if row.meal == "dinner" and row.kind == "main"]
        # a main on each of seven evenings, none of them more than three times
        self.assertEqual(len(dinners), 7)
        self.assertLessEqual(max(map(dinners.count, dinners)), 3)
