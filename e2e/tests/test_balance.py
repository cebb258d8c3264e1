"""Balance, swaps and two plates in a browser: a proposal taken in part, by keyboard alone, a swap
as a version, equal calories."""

import re

from playwright.sync_api import expect

from e2e.case import BrowserCase


class Balance(BrowserCase):
    def amounts(self):
        return [field.input_value() for field in self.page.locator("[data-amount]").all()]

    def test_take_half_a_proposal_and_undo(self):
        page = self.page
        self.open("/bowls/")
        self.follow("Keel and ribs")
        before = self.amounts()
        page.get_by_role("link", name="Balance").click()
        proposals = page.get_by_label("Proposals")
        expect(proposals.get_by_role("link", name="One change")).to_be_visible()
        proposals.get_by_role("link", name="Two changes").click()
        expect(proposals.get_by_role("link", name="Two changes")).to_have_attribute(
            "aria-current", "true"
        )
        expect(page.locator("#the-round .ghost").first).to_be_attached()
        expect(page.locator("#strip .then").first).to_be_visible()
        two = page.locator(".proposal")
        ticks = two.locator("input[type=checkbox]")
        changed = ticks.count()
        self.assertGreater(changed, 1, "more than one part moves")
        for tick in ticks.all()[: changed // 2]:
            tick.uncheck()
        two.get_by_role("button", name="Take what is ticked").click()
        expect(page.locator("#the-round .ghost")).to_have_count(0)
        self.settled()
        after = self.amounts()
        moved = sum(one != other for one, other in zip(before, after, strict=True))
        self.assertEqual(moved, changed - changed // 2)
        page.get_by_role("button", name="Undo").click()
        expect(page.locator("[data-amount]")).to_have_count(len(before))
        for field, value in zip(page.locator("[data-amount]").all(), before, strict=True):
            expect(field).to_have_value(value)

    def test_adjust_lock_balance_take_undo_without_the_mouse(self):
        page = self.page
        self.open("/bowls/")
        self.follow("Keel and ribs")
        field = page.locator("[data-amount]").first
        first = field.input_value()
        field.focus()
        page.keyboard.press("+")
        expect(field).not_to_have_value(first)
        stepped = field.input_value()
        page.keyboard.press("!")
        expect(
            page.locator(".part").first.get_by_role("button", name=re.compile("^Unlock"))
        ).to_be_visible()
        page.keyboard.press("Escape")
        page.keyboard.press("b")
        expect(page.locator(".proposal").first).to_be_visible()
        page.keyboard.press("t")
        page.wait_for_timeout(200)
        expect(page.locator(".proposal")).to_have_count(1)
        # no letter takes a proposal: it is taken on purpose
        take = page.get_by_role("button", name="Take what is ticked")
        take.focus()
        page.keyboard.press("Enter")
        expect(page.locator(".proposal")).to_have_count(0)
        expect(field).to_have_value(stepped)
        for _ in range(3):
            self.settled()
            with page.expect_response(re.compile("/undo/")):
                page.keyboard.press("u")
        expect(field).to_have_value(first)

    def test_balance_a_day(self):
        page = self.page
        self.open("/clients/")
        self.person("Ilse Varga-Holm")
        self.go(page.locator("main a[href*='/days/']:not([href$='/days/'])").nth(1))
        before = self.amounts()
        page.get_by_role("link", name="Balance").click()
        panel = page.get_by_label("Balance").first
        expect(panel.get_by_text("whole day, supplements counted")).to_be_visible()
        expect(panel.locator(".ghost").first).to_be_attached()
        page.get_by_role("button", name="Take what is ticked").click()
        expect(page.locator(".proposal")).to_have_count(0)
        self.settled()
        self.assertNotEqual(self.amounts(), before)
        page.get_by_role("button", name="Undo").click()
        expect(page.locator("[data-amount]").first).to_have_value(before[0])


class Swaps(BrowserCase):
    def test_a_swap_becomes_a_version(self):
        page = self.page
        self.open("/clients/")
        self.person("Ilse Varga-Holm")
        self.recipe("Miso and ginger dressing")
        self.follow("Swaps")
        sodium = page.get_by_label("Sodium", exact=True)
        swap = sodium.locator(".swap").first
        words = swap.locator("p").first.inner_text()
        swap.get_by_role("button", name="For everybody").click()
        expect(page.get_by_text(re.compile("Version 3: .*sodium")).first).to_be_visible()
        self.follow("Versions (3)")
        expect(page.get_by_text(re.compile(re.escape(words[1:20]))).first).to_be_visible()
        expect(page.get_by_role("heading", name=re.compile("Version 2 to 3"))).to_be_visible()
        page.locator(".doing").get_by_role("link", name="Compare", exact=True).click()
        expect(page.get_by_label("What differs")).to_contain_text("Sodium")

    def test_a_swap_in_a_bowl_and_undo(self):
        page = self.page
        self.open("/bowls/")
        self.follow("Harbor night flask")
        parts = page.get_by_label("Parts", exact=True)
        before = parts.inner_text()
        page.get_by_role("link", name="Swaps").click()
        page.get_by_label("Swaps").get_by_role("button", name="Take it").first.click()
        expect(page.locator("#work .notice")).to_be_visible()
        self.settled()
        self.assertNotEqual(parts.inner_text(), before)
        page.get_by_role("button", name="Undo").click()
        expect(page.locator("#work .notice")).to_have_count(0)
        self.settled()
        self.assertEqual(parts.inner_text(), before)


class TwoPlates(BrowserCase):
    def test_at_equal_calories(self):
        page = self.page
        self.open("/bowls/")
        self.follow("Lamp-room salad")
        page.keyboard.press("c")
        page.wait_for_url("**/compare/**")
        page.get_by_label("Food, recipe, bowl or day").fill("walnuts")
        page.locator("#found").get_by_role("link", name="Walnuts food", exact=True).click()
        expect(page.get_by_role("heading", name="What differs, as served")).to_be_visible()
        self.follow("At equal calories")
        expect(page.get_by_role("heading", name="What differs, at equal calories")).to_be_visible()
        plates = [page.get_by_label(name, exact=True) for name in ("Lamp-room salad", "Walnuts")]
        self.assertEqual(*(re.search(r"([\d,]+) kcal", plate.inner_text())[1] for plate in plates))
        widths = [plate.locator("svg.round").bounding_box()["width"] for plate in plates]
        self.assertAlmostEqual(*widths, delta=1, msg="one scale on the screen as well")
        self.follow("Lesson for a client")
        expect(
            page.get_by_role(
                "heading", name=re.compile("The same calories: a mixing bowl or a handful")
            )
        ).to_be_visible()
        self.assertEqual(
            len(re.findall(rb"/Type\s*/Page\b", page.pdf(format="Letter"))), 1, "one printed page"
        )

    def test_the_sauce_bench(self):
        page = self.page
        self.recipe("Sunflower and dill sauce")
        self.follow("Sauce bench")
        page.get_by_label("Bowls to cover").fill("12")
        page.get_by_label("At most").fill("3")
        page.get_by_role("button", name="Work it out").click()
        expect(page.get_by_text(re.compile(r"can go\s+\("))).to_be_visible()
        page.get_by_role("button", name=re.compile("into the recipe")).click()
        expect(page.get_by_text("12 bowls").first).to_be_visible()
