"""What keeps a client safe, in a browser: a first visit that survives, voices that disagree,
cautions where decisions are made."""

import re

from playwright.sync_api import expect

from e2e.case import BrowserCase


class FirstVisit(BrowserCase):
    def test_nothing_is_lost_when_the_browser_closes(self):
        page = self.page
        self.open("/clients/")
        page.get_by_role("button", name="New client").click()
        for label, value in (
            ("Name", "Ebba Lindqvist-Roe"),
            ("Birth date or age", "1950"),
            ("Height [cm]", "163"),
            ("Weight [kg]", "58"),
        ):
            page.get_by_label(label, exact=True).fill(value)
        page.get_by_label("Sex used in equations").select_option("female")
        page.get_by_label("warfarin").check()
        so_far = page.get_by_label("What can be said so far")
        expect(so_far.get_by_text("Saved at")).to_be_visible()
        expect(so_far.get_by_text("about the same amount of greens every day")).to_be_visible()
        page.get_by_label("School", exact=True).select_option("greens_beans_seeds")
        expect(so_far.get_by_text("several times the usual vitamin K")).to_be_visible()
        with self.kept("Soup at noon"):
            page.get_by_label("How they eat and cook").press_sequentially("Soup at noon")
        # the browser closes, another one opens
        page.close()
        self.page = page = self.new_page()
        self.open("/clients/")
        expect(page.get_by_text("First visit begun: Ebba Lindqvist-Roe")).to_be_visible()
        self.follow("Go on")
        # the demo has one begun as well: the latest stands first
        expect(page.get_by_label("Name", exact=True)).to_have_value("Ebba Lindqvist-Roe")
        expect(page.get_by_label("warfarin")).to_be_checked()
        expect(page.get_by_label("How they eat and cook")).to_have_value("Soup at noon")
        page.get_by_role("button", name="Make the client").first.click()
        expect(page.get_by_role("heading", name="Ebba Lindqvist-Roe")).to_be_visible()
        expect(page.get_by_text("several times the usual vitamin K").first).to_be_visible()


class Care(BrowserCase):
    def test_voices_that_disagree_and_a_number_set_by_hand(self):
        page = self.page
        self.person("Rasmus Tarn")
        told = page.get_by_label("Where sources disagree")
        told.locator("summary").first.click()
        expect(
            told.get_by_text(re.compile(r"The practitioner's choice .* says")).first
        ).to_be_visible()
        page.get_by_label("Cautions").get_by_text("Stop and ask").first.click()
        expect(
            page.get_by_text("Only a licensed clinician's order stands over a limit")
        ).to_be_attached()
        page.get_by_role("link", name="Set Potassium by hand").click()
        page.get_by_label("Aim [mg]").fill("2000")
        page.get_by_label("At most [mg]").fill("2300")
        page.get_by_label("a clinician's order").check()
        page.get_by_label("Who gave the order").fill("Dr. H. Amsel")
        page.get_by_label("Their license").fill("MD, nephrology")
        page.get_by_label("Reason").fill("Letter of the nephrologist")
        page.get_by_role("button", name="Put in force").click()
        expect(
            page.get_by_label("Targets that are watched").get_by_text("at most 2,300 mg, aim 2,000")
        ).to_be_visible()
        page.get_by_text("History", exact=True).click()
        expect(
            page.get_by_text(
                "Potassium set by hand, a clinician's order (Dr. H. Amsel, MD, nephrology): Letter "
                "of the nephrologist"
            )
        ).to_be_visible()

    def test_a_caution_stands_where_the_food_is_added_and_is_put_aside_with_a_reason(self):
        page = self.page
        self.open("/bowls/")
        self.follow("Lamp-room salad")
        page.get_by_label("Food or recipe").fill("brazil nut")
        page.locator("#found").get_by_role("option", name="Brazil nuts").first.click()
        page.get_by_label("Amount of Brazil nuts").fill("25 g")
        page.get_by_label("Amount of Brazil nuts").press("Enter")
        cautions = page.get_by_label("Cautions")
        expect(cautions.get_by_text("25 g of Brazil nuts").first).to_be_attached()
        if not cautions.locator(".caution", has_text="25 g of Brazil nuts").is_visible():
            cautions.locator(".lesser > summary").click()
        caution = cautions.locator(".caution", has_text="25 g of Brazil nuts")
        caution.get_by_text("Put aside", exact=False).first.click()
        caution.get_by_label("Why, for").fill("Counted out once a week")
        caution.get_by_role("button", name="Put aside").click()
        expect(page.get_by_role("heading", name="Lamp-room salad")).to_be_visible()
        expect(cautions.locator(".lesser > summary")).to_contain_text("1 put aside")
        cautions.locator(".lesser > summary").click()
        expect(page.get_by_text("Counted out once a week")).to_be_visible()
        page.get_by_role("button", name="Bring back").click()
        expect(cautions.locator(".lesser > summary")).not_to_contain_text("put aside")

    def test_a_day_keeps_the_targets_it_was_planned_for(self):
        page = self.page
        self.person("Tomaz Quill")
        page.get_by_text("Make new targets", exact=True).click()
        page.get_by_label("Why").last.fill("Season begins")
        self.send(page.get_by_role("button", name="Make them"))
        expect(page.get_by_text("New targets from").first).to_be_visible()
        self.follow("Edit")
        page.get_by_label("Activity", exact=True).select_option("active")
        page.get_by_role("button", name="Save").click()
        page.wait_for_url("**/clients/*/")
        expect(page.get_by_text("New targets from").first).to_be_visible()
        self.go(page.locator("main a[href*='/days/']:not([href$='/days/'])").last)
        expect(page.get_by_text("Planned for targets")).to_be_visible()
        before = page.locator("#strip").inner_text()
        page.get_by_role("button", name="Use targets").click()
        expect(page.locator("#strip")).not_to_have_text(before)
        expect(page.get_by_text("Planned for targets")).not_to_be_visible()
