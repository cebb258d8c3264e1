"""The whole job in a browser: a client, a recipe, a bowl, a day against targets, a handout."""

import re

from playwright.sync_api import expect

from demo.load import NAME, PASSWORD
from e2e.browser import sign_in
from e2e.case import BrowserCase


class WholeJob(BrowserCase):
    def test_from_the_client_to_the_handout(self):
        page = self.page
        self.context.clear_cookies()
        sign_in(page, self.live_server_url, NAME, PASSWORD)
        # a client
        page.get_by_role("button", name="New client").click()
        for label, value in (
            ("Name", "Brisa Holloway"),
            ("In a few words", "Net mender"),
            ("Birth date or age", "1985"),
            ("Height [cm]", "170"),
            ("Weight [kg]", "70"),
        ):
            page.get_by_label(label, exact=True).fill(value)
        page.get_by_label("Sex used in equations").select_option("female")
        page.get_by_label("Activity", exact=True).select_option("active")
        expect(page.get_by_label("What can be said so far").get_by_text("56–")).to_be_visible()
        page.get_by_role("button", name="Make the client").first.click()
        expect(page.get_by_role("heading", name="Brisa Holloway")).to_be_visible()
        page.get_by_role("row", name="Protein").get_by_text("General guidance").click()
        expect(page.get_by_text("0.8 g per kg x 70 kg = 56 g at least")).to_be_visible()
        # a recipe, written as on paper, read while typing
        self.follow("Recipes")
        self.follow("Write a recipe")
        page.get_by_label("Title").fill("Net mender's barley")
        page.get_by_label("Part of a bowl").select_option("base")
        page.get_by_label("Ingredients, one a line").press_sequentially(
            "1 cup pearl barley, dry\n1 ladle of the red stuff", delay=2
        )
        reading = page.get_by_label("Each line as it was read")
        settle = page.get_by_label("To settle")
        expect(settle.get_by_text("1 line not counted")).to_be_visible()
        expect(settle.get_by_text("“stuff” is not accounted for")).to_be_visible()
        page.get_by_label("Ingredients, one a line").fill(
            "1 cup pearl barley, dry\n1 (15 oz) can white beans, drained and rinsed\n3 tbsp lemon "
            "juice"
        )
        expect(settle.get_by_text("every line settled")).to_be_visible()
        # another food by typing, grams typed
        page.get_by_label("Food for 1 cup pearl barley, dry").fill("hulled barley")
        page.get_by_role("option", name="Barley, hulled, dry").click()
        expect(page.get_by_label("Grams for 1 cup pearl barley, dry")).to_have_attribute(
            "placeholder", "184"
        )
        page.get_by_label("Grams for 3 tbsp lemon juice").fill("50")
        page.get_by_label("Grams for 3 tbsp lemon juice").press("Tab")
        expect(reading.get_by_text("weighed", exact=True)).to_be_visible()
        page.get_by_role("button", name="Save").click()
        expect(page.get_by_text("Saved.")).to_be_visible()
        expect(page.get_by_label("Food for 1 cup pearl barley, dry")).to_have_value(
            "Barley, hulled, dry"
        )
        # a bowl from it
        self.follow("Bowls")
        page.get_by_label("Name").fill("Net loft bowl")
        page.get_by_role("button", name="Build a bowl for Brisa Holloway").click()
        for typed, choose in (
            ("net mender", "Net mender's barley"),
            ("kale", "Kale, raw"),
            ("firm tofu", "Tofu, firm"),
        ):
            page.get_by_label("Food or recipe").fill(typed)
            page.locator("#found").get_by_role("option", name=choose).first.click()
            expect(page.get_by_label(f"Amount of {choose}", exact=True)).to_be_visible()
        expect(page.get_by_text(re.compile(r"\d+ kinds,\s+[\d.]+ g in one bowl"))).to_be_visible()
        page.get_by_label("Amount of Tofu, firm").fill("1/2 cup")
        page.get_by_label("Amount of Tofu, firm").press("Enter")
        expect(page.get_by_label("Amount of Tofu, firm")).to_have_value("126 g")
        page.get_by_role("button", name="More Tofu, firm").click()
        expect(page.get_by_label("Amount of Tofu, firm")).to_have_value("210 g")
        page.get_by_label("The outer ring: each part's").select_option(label="sodium")
        expect(page.get_by_text("of the sodium").first).to_be_attached()
        # the day against her targets
        self.follow("Days")
        page.get_by_role("button", name="Open this day").click()
        for typed, choose in (("net loft", "Net loft bowl"), ("walnuts", "Walnuts")):
            page.get_by_label("Add to lunch").fill(typed)
            page.locator("#found-lunch").get_by_role("option", name=choose).first.click()
            expect(page.get_by_label("Lunch", exact=True).get_by_text(choose).first).to_be_visible()
        strip = page.get_by_label("The day's targets")
        before = strip.inner_text()
        page.get_by_label("bowls of Net loft bowl").fill("2")
        page.get_by_label("bowls of Net loft bowl").press("Tab")
        expect(strip).not_to_have_text(before)
        # the handout
        self.follow("Handout")
        expect(page.get_by_text("does not replace care by a licensed professional")).to_be_visible()
        expect(page.get_by_text("Net loft bowl").first).to_be_visible()


class Recipe(BrowserCase):
    def test_a_keystroke_is_answered_without_a_new_page(self):
        self.open("/recipes/")
        self.follow("Bean and barley soup")
        self.page.evaluate("window.stays = true")
        self.page.get_by_label("Ingredients, one a line").press("Control+End")
        self.page.keyboard.type("\n200 g kohlrabi")
        expect(self.page.get_by_label("Food for 200 g kohlrabi")).to_be_visible()
        self.assertTrue(self.page.evaluate("window.stays"))

    def test_cook_and_go_back_a_version(self):
        page = self.page
        self.open("/recipes/")
        self.follow("Dill barley with white beans")
        self.follow("Cook")
        expect(page.get_by_role("heading", name="Step 1 of")).to_be_visible()
        page.get_by_label("1 cup pearl barley, dry").check()
        page.get_by_role("button", name="Start 30 minutes").click()
        expect(page.get_by_role("timer")).to_have_text(re.compile(r"(30:00|29:\d\d)"))
        page.keyboard.press("ArrowRight")
        expect(page.get_by_role("heading", name="Step 2 of")).to_be_visible()
        expect(page.get_by_label("1 cup pearl barley, dry")).to_be_checked()
        self.follow("To the recipe")
        self.follow("Versions (2)")
        expect(page.get_by_text("\u2212145 mg").first).to_be_visible()
        page.get_by_role("button", name="Go back to version 1").click()
        expect(page.get_by_label("Ingredients, one a line")).to_have_value(
            re.compile("1 tbsp olive oil")
        )


class Bowl(BrowserCase):
    def setUp(self):
        super().setUp()
        self.open("/bowls/")
        self.follow("Harbor night flask")

    def amount(self, name):
        return self.page.get_by_label(f"Amount of {name}")

    def test_a_change_is_on_screen_without_a_new_page(self):
        strip = self.page.locator("#strip")
        before = strip.inner_text()
        self.page.evaluate("window.stays = true")
        self.page.get_by_role("button", name="More Kale, raw").click()
        expect(self.amount("Kale, raw")).not_to_have_value("40 g")
        expect(strip).not_to_have_text(before)
        self.assertTrue(self.page.evaluate("window.stays"))

    def test_drag_a_part_larger_then_undo(self):
        page = self.page
        before = self.amount("Dill barley with white beans").input_value()
        page.locator("[data-drag]").first.scroll_into_view_if_needed()
        handle = page.locator("[data-drag]").first.bounding_box()
        round_box = page.locator("[data-round]").bounding_box()
        x, y = handle["x"] + handle["width"] / 2, handle["y"] + handle["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        page.mouse.move(
            round_box["x"] + 0.5 * round_box["width"],
            round_box["y"] + 0.9 * round_box["height"],
            steps=6,
        )
        with page.expect_response("**/parts/*/"):
            page.mouse.up()
        expect(self.amount("Dill barley with white beans")).not_to_have_value(before)
        self.settled()
        grams = float(
            self.amount("Dill barley with white beans").input_value().split()[0].replace(",", "")
        )
        self.assertGreater(grams, float(before.split()[0]) * 1.2)
        page.get_by_role("button", name="Undo").click()
        expect(self.amount("Dill barley with white beans")).to_have_value(before)

    def test_by_keyboard_alone(self):
        page, kale = self.page, self.amount("Kale, raw")
        kale.focus()
        page.keyboard.press("+")
        expect(kale).not_to_have_value("40 g")
        expect(kale).to_be_focused()
        page.locator("h1").click()
        page.keyboard.press("u")
        expect(kale).to_have_value("40 g")
        page.keyboard.press("?")
        expect(page.get_by_role("heading", name="Keys")).to_be_visible()
        page.keyboard.press("Escape")
        page.keyboard.press("g")
        page.keyboard.press("p")
        expect(page.get_by_role("heading", name="Pantry")).to_be_visible()

    def test_a_bad_amount_keeps_what_was_typed(self):
        kale = self.amount("Kale, raw")
        kale.fill("a bit")
        kale.press("Enter")
        expect(self.page.get_by_text("“a bit” is not an amount")).to_be_visible()
        expect(kale).to_have_value("a bit")


class WithoutJavaScript(BrowserCase):
    javascript = False

    def test_every_save_works(self):
        page = self.page
        self.open("/bowls/")
        self.follow("Harbor night flask")
        page.get_by_label("Food or recipe").fill("kohlrabi")
        page.get_by_role("button", name="Find", exact=True).click()
        page.locator("#found").get_by_role("option", name="Kohlrabi, raw").click()
        expect(page.get_by_label("Amount of Kohlrabi, raw")).to_be_visible()
        page.get_by_label("Amount of Kohlrabi, raw").fill("70 g")
        page.get_by_label("Amount of Kohlrabi, raw").press("Enter")
        expect(page.get_by_label("Amount of Kohlrabi, raw")).to_have_value("70 g")
        self.open("/recipes/new/")
        page.get_by_label("Title").fill("Plain kohlrabi")
        page.get_by_label("Ingredients, one a line").fill("2 medium kohlrabi, peeled")
        page.get_by_role("button", name="Add up without saving").click()
        expect(page.get_by_text("every line settled")).to_be_visible()
        page.get_by_role("button", name="Save").click()
        expect(page.get_by_text("Saved.")).to_be_visible()
