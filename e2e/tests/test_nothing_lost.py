"""What a person sees when something fails: a first visit kept after all, no connection, an ended
session; and two tabs."""

import re

from django_scopes import scope
from playwright.sync_api import expect

from clients.models import Client, Intake
from e2e.case import BrowserCase
from planner.models import Day
from practice.models import Practice


class NothingLost(BrowserCase):
    def tearDown(self):
        # what is made to fail here is told by the browser too
        self.complaints = [
            one
            for one in self.complaints
            if not re.search("^409|Failed to load resource|Response Status Error", one)
        ]
        super().tearDown()

    def practice(self):
        return scope(practice=Practice.objects.get(name="Tern Point Wellness"))

    def failing(self):
        return self.page.locator("#not-sent")

    def begin(self, name):
        page = self.page
        self.open("/clients/")
        page.get_by_role("button", name="New client").click()
        for label, value in (
            ("Name", name),
            ("Birth date or age", "1954"),
            ("Height [cm]", "164"),
            ("Weight [kg]", "61"),
        ):
            page.get_by_label(label, exact=True).fill(value)
        page.get_by_label("Sex used in equations").select_option("female")

    def test_a_first_visit_with_kidney_disease_and_no_school(self):
        page = self.page
        self.begin("Ragna Holt")
        so_far = page.get_by_label("What can be said so far")
        page.get_by_label("kidney disease, stage 3b").check()
        expect(so_far.get_by_text(re.compile(r"4[89](\.\d)?–6[01]")).first).to_be_visible()
        expect(so_far).not_to_contain_text("59–187")
        page.get_by_label("How they eat and cook").fill("Measures everything")
        expect(so_far.get_by_text("Saved at")).to_be_visible()
        page.get_by_role("button", name="Make the client").first.click()
        expect(page.get_by_role("heading", name="Ragna Holt", exact=True)).to_be_visible()
        page.get_by_text("The last 1 weigh-ins").click()
        expect(page.locator("#weight td", has_text="61.0 kg").first).to_be_visible()

    def test_what_was_drawn_a_moment_ago_is_sent_like_the_rest(self):
        page = self.page
        self.open("/bowls/")
        self.follow("Harbor night flask")
        # as it stands between being drawn and being taken over
        page.evaluate(
            "const parts = document.querySelector('#work'); parts.innerHTML = parts.innerHTML; "
            "window.stays = true"
        )
        kale = page.get_by_label("Amount of Kale, raw")
        kale.fill("77 g")
        with page.expect_request("**/parts/*/") as sent:
            kale.press("Enter")
        self.assertEqual(sent.value.headers.get("hx-request"), "true")
        self.assertIn("page-id", sent.value.headers)
        expect(kale).to_have_value("77 g")
        self.assertTrue(page.evaluate("window.stays"), "the page was not loaded anew")

    def test_what_is_typed_while_something_is_added_is_looked_for(self):
        page = self.page
        with self.practice():
            day = Day.objects.filter(client__name="Osk Brannigan").order_by("date").first()
        self.open(f"/for/{day.client_id}/days/{day.pk}/")
        lunch = page.get_by_label("Add to lunch")
        found = page.locator("#found-lunch")
        lunch.fill("dill")
        option = found.get_by_role("option").first
        expect(option).to_be_visible()
        held = []
        page.route("**/add/", lambda route: held.append(route))
        option.click()
        lunch.fill("walnuts")
        expect(found.get_by_role("option", name="Walnuts").first).to_be_visible()
        self.assertEqual(len(held), 1, "what was chosen is on its way")
        with page.expect_response("**/add/"):
            held[0].continue_()
        page.unroute("**/add/")
        expect(page.get_by_label("Lunch", exact=True)).to_contain_text("dill", ignore_case=True)
        expect(lunch).to_have_value("walnuts")
        found.get_by_role("option", name="Walnuts").first.click()
        expect(page.get_by_label("Amount of Walnuts")).to_be_visible()

    def test_a_save_that_fails_is_seen_keeps_what_was_typed_and_is_tried_again(self):
        page = self.page
        self.begin("Ragna Holt")
        so_far = page.get_by_label("What can be said so far")
        expect(so_far.get_by_text("Saved at")).to_be_visible()
        page.route("**/keep/", lambda route: route.fulfill(status=500, body="no"))
        page.get_by_label("How they eat and cook").fill("Soup at noon")
        expect(self.failing()).to_contain_text(
            "Not saved. Round Pantry could not do it (500). What you typed is still here."
        )
        expect(so_far.get_by_text("Not saved. Trying again")).to_be_visible()
        page.unroute("**/keep/")
        # by itself, after a while
        expect(so_far.get_by_text("Saved at")).to_be_visible()
        expect(self.failing()).to_be_hidden()
        with self.practice():
            self.assertEqual(Intake.objects.order_by("-pk").first().data["notes"], ["Soup at noon"])

    def test_a_recipe_that_could_not_be_kept_is_tried_again_and_read_all_the_while(self):
        page = self.page
        self.recipe("Bean and barley soup")
        page.route("**/keep-typing/", lambda route: route.fulfill(status=500, body="no"))
        page.get_by_label("Ingredients, one a line").press("Control+End")
        page.keyboard.type("\n200 g kohlrabi")
        expect(page.get_by_label("Food for 200 g kohlrabi")).to_have_value("Kohlrabi, raw")
        kept = page.locator("#kept-status")
        expect(kept).to_have_text("Not saved. Trying again …")
        # what is read meanwhile does not end the trying
        page.get_by_label("Ingredients, one a line").press("Control+End")
        with page.expect_response("**/preview/**"):
            page.keyboard.type(", diced")
        expect(self.failing()).to_be_visible()
        page.unroute("**/keep-typing/")
        expect(kept).to_have_text("saved")
        expect(self.failing()).to_be_hidden()
        # the reading that takes long, and the saving that begins meanwhile, do not end each other
        held = []
        page.route("**/preview/**", lambda route: held.append(route))
        with self.kept("40 g walnuts"):
            page.keyboard.type("\n40 g walnuts")
        expect(kept).to_have_text("saved")
        for route in held:
            route.continue_()
        page.unroute("**/preview/**")
        expect(page.get_by_label("Food for 40 g walnuts")).to_have_value("Walnuts")

    def test_without_a_connection_and_signed_out(self):
        page = self.page
        self.person("Wren Adeyemi-Lund")
        page.get_by_label("Weight [kg]", exact=True).fill("70.4")
        page.route("**/weigh-in/", lambda route: route.abort())
        page.get_by_role("button", name="Record").click()
        expect(self.failing()).to_contain_text("There is no connection")
        expect(page.get_by_label("Weight [kg]", exact=True)).to_have_value("70.4")
        page.unroute("**/weigh-in/")
        cookies = self.context.cookies()
        self.context.clear_cookies(name="sessionid")
        self.failing().get_by_role("button", name="Try again").click()
        expect(self.failing()).to_contain_text("You are signed out.")
        expect(self.failing().get_by_role("link", name="Sign in, in a new tab")).to_be_visible()
        expect(page.get_by_label("Weight [kg]", exact=True)).to_have_value("70.4")
        self.context.add_cookies([cookie for cookie in cookies if cookie["name"] == "sessionid"])
        self.failing().get_by_role("button", name="Try again").click()
        expect(
            page.get_by_text("70.4 kg recorded").or_(page.get_by_text("There is one of"))
        ).to_be_visible()

    def test_a_live_call_that_fails_is_seen(self):
        page = self.page
        self.open("/bowls/")
        self.follow("Keel and ribs")
        page.route("**/parts/**", lambda route: route.fulfill(status=500, body="no"))
        amount = page.locator("[data-amount]").first
        amount.fill("77 g")
        amount.press("Enter")
        expect(self.failing()).to_contain_text("Not saved.")
        expect(amount).to_have_value("77 g")
        page.unroute("**/parts/**")
        self.failing().get_by_role("button", name="Try again").click()
        expect(self.failing()).to_be_hidden()

    def test_two_tabs_with_two_clients(self):
        first = self.page
        self.person("Osk Brannigan")
        first.get_by_role("link", name="Days", exact=True).click()
        second = self.context.new_page()
        second.goto(self.live_server_url + "/clients/?q=Ilse")
        second.get_by_role("link", name="Ilse Varga-Holm", exact=True).click()
        expect(second.get_by_role("heading", name="Ilse Varga-Holm")).to_be_visible()
        date = self.free_date()
        first.get_by_label("Date").fill(date)
        first.get_by_role("button", name="Open this day").click()
        expect(first.get_by_text("This page is for")).to_be_visible()
        expect(first.locator(".for-client")).to_contain_text("Osk Brannigan")
        first.wait_for_url("**/days/*/")
        with self.practice():
            self.assertEqual(
                Day.objects.get(date=date).client, Client.objects.get(name="Osk Brannigan")
            )
        # the keys lead on for the same client
        first.keyboard.press("g")
        first.keyboard.press("b")
        first.wait_for_url("**/for/*/bowls/")
        expect(first.locator(".for-client")).to_contain_text("Osk Brannigan")

    def test_what_is_found_is_marked_before_it_is_added(self):
        page = self.page
        self.person("Tomaz Quill")
        page.get_by_role("link", name="Bowls", exact=True).click()
        page.get_by_role("link").filter(has_text=re.compile("Boathouse eight")).first.click()
        page.get_by_label("Food or recipe").fill("walnuts")
        mark = page.locator("#found .mark").first
        expect(mark).to_contain_text(
            "Stop and ask: The client does not tolerate what is in: Walnuts"
        )

    def test_a_colleagues_change_is_seen_before_it_is_written_over(self):
        page = self.page
        self.open("/bowls/")
        self.follow("Keel and ribs")
        other = self.context.new_page()
        other.goto(page.url)
        theirs, mine = other.locator("[data-amount]").first, page.locator("[data-amount]").first
        theirs.fill("111 g")
        with other.expect_response("**/parts/*/"):
            theirs.press("Enter")
        mine.fill("99 g")
        mine.press("Enter")
        expect(page.locator("#work")).to_contain_text("changed this bowl after you opened it")
        expect(page.locator("[data-amount]").first).to_have_value("99 g")
        page.locator("[data-amount]").first.press("Enter")
        expect(page.locator("#work")).not_to_contain_text("changed this bowl after you opened it")
