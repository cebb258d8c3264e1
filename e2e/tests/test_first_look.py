"""What a first look must not miss: nothing the kitchen needs is hidden on a phone, nothing lies
over the page for good, a long list is entered by a few letters, no number lies over a button."""

from django_scopes import scopes_disabled
from playwright.sync_api import expect

from bowls.models import Bowl
from e2e.case import BrowserCase
from planner.models import Day


class FirstLook(BrowserCase):
    def bowl(self):
        with scopes_disabled():
            bowl = Bowl.objects.get(name="Keel and ribs")
        self.open(f"/for/{bowl.client_id}/bowls/{bowl.pk}/")

    def test_a_phone_has_what_the_kitchen_needs(self):
        self.recipe("Millet with roast celeriac")
        self.page.set_viewport_size({"width": 390, "height": 844})
        for label in ("Batch weighed [g]", "How it is cooked", "Save as a version, because"):
            with self.subTest(label):
                expect(self.page.get_by_label(label)).to_be_visible()
        self.page.get_by_label("Batch weighed [g]").fill("900")
        expect(self.page.locator("#reckoned")).to_contain_text("batch weighed 900 g")

    def test_the_paper_hides_nothing_and_what_was_read_stands_beside_it(self):
        page = self.page
        self.recipe("Millet with roast celeriac")
        paper = page.get_by_label("Ingredients")
        long = "1 cup dry millet, rinsed three times in cold water and left to drain on a cloth"
        paper.fill(f"{long}\n\n2 medium carrots, diced")
        rows = page.locator(".line-row")
        expect(rows).to_have_count(2)
        self.assertTrue(paper.evaluate("one => one.scrollWidth <= one.clientWidth + 1"))
        page.wait_for_function(
            "() => document.querySelectorAll('.line-row')[1].style.getPropertyValue('--skipped')"
        )
        tops = rows.evaluate_all("all => all.map(one => one.getBoundingClientRect().top)")
        taken = int(rows.nth(0).evaluate("one => one.style.getPropertyValue('--taken')"))
        self.assertGreaterEqual(taken, 2, "it takes two rows of the paper")
        self.assertEqual(
            rows.nth(1).evaluate("one => one.style.getPropertyValue('--skipped')"), "1"
        )
        self.assertGreater(tops[1] - tops[0], 32 * taken - 8)

    def test_escape_closes_what_lies_over_the_page(self):
        page = self.page
        self.bowl()
        reading = page.locator("#strip .reading").first
        reading.locator("summary").click()
        expect(reading.locator(".reading-more")).to_be_visible()
        page.keyboard.press("Escape")
        expect(reading.locator(".reading-more")).to_be_hidden()
        reading.locator("summary").click()
        page.mouse.click(900, 780)
        expect(reading.locator(".reading-more")).to_be_hidden()

    def test_a_condition_is_found_by_a_few_letters(self):
        page = self.page
        self.open("/clients/2/edit/")
        page.get_by_label("Find in Conditions").fill("heart fail")
        expect(page.get_by_label("heart failure")).to_be_visible()
        expect(page.get_by_label("gout")).to_be_hidden()
        page.get_by_label("Find in Conditions").press("Enter")
        expect(page.get_by_label("heart failure")).to_be_checked()
        expect(page.get_by_label("gout")).to_be_visible()
        self.assertIn("/edit/", page.url, "Enter sends nothing")

    def test_the_strip_proposes_in_words_and_not_in_empty_buttons(self):
        page = self.page
        self.bowl()
        page.keyboard.press("b")
        expect(page.locator("#strip .then").first).to_be_visible()
        borders = page.locator("#strip .reading-word, #strip .reading-word *").evaluate_all(
            "all => all.map(one => getComputedStyle(one).borderTopWidth)"
        )
        self.assertEqual(set(borders), {"0px"})

    def test_a_number_stands_beside_the_lock_and_not_over_it(self):
        page = self.page
        with scopes_disabled():
            days = list(Day.objects.order_by("pk")[:6])
        for day in days:
            self.open(f"/for/{day.client_id}/days/{day.pk}/")
            over = page.locator(".part-line.entry").evaluate_all(
                """all => all.filter((row) => {
                    const icons = row.querySelector(".part-icons").getBoundingClientRect();
                    return [...row.querySelectorAll(".number")].some(
                        (one) => one.getBoundingClientRect().right > icons.left + 1);
                }).length"""
            )
            with self.subTest(day.pk):
                self.assertEqual(over, 0)
