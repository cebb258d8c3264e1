"""Each screen shows its work at once: on a desk, a kitchen tablet and a phone."""

import re

from django_scopes import scopes_disabled
from playwright.sync_api import expect

from bowls.models import Bowl, BowlPart
from clients.models import Client
from e2e.case import BrowserCase
from planner.models import Day
from recipes.models import Recipe

DESK, TABLET, PHONE = (1280, 800), (820, 1180), (390, 844)
STRIP_MOST, CAUTIONS_MOST = 64, 56
EIGHT = (
    ("base", "millet-cooked", 180),
    ("vegetable", "kohlrabi-raw", 90),
    ("vegetable", "carrots-raw", 80),
    ("greens", "kale-raw", 40),
    ("protein", "tofu-firm", 150),
    ("protein", "edamame-cooked", 60),
    ("sauce", "tahini", 20),
    ("topping", "pumpkin-seeds", 10),
)
FOURTEEN = """1 cup pearl barley, dry
1 cup navy beans, dry
2 stalks celery, sliced
2 medium carrots, diced
1 medium onion, diced
2 cups kale, chopped
8 oz mushrooms, sliced
1 tsp thyme
3/4 tsp salt
6 cups water
1 medium leek, sliced
200 g celeriac
2 tbsp tomato paste
1 ladle of the red stuff"""


class Bench(BrowserCase):
    def size(self, size):
        self.page.set_viewport_size({"width": size[0], "height": size[1]})

    def box(self, locator):
        found = locator.bounding_box() if not isinstance(locator, str) else self.box_of(locator)
        self.assertIsNotNone(found, f"not on the page: {locator}")
        return found

    def box_of(self, selector):
        return self.page.locator(selector).first.bounding_box()

    def in_sight(self, locator, what=""):
        """That something lies within the window, without scrolling."""
        found, size = self.box(locator), self.page.viewport_size
        self.assertEqual(self.page.evaluate("window.scrollY"), 0)
        self.assertGreaterEqual(found["y"], 0, what)
        self.assertLessEqual(found["y"] + found["height"], size["height"] + 1, what or locator)
        self.assertLessEqual(found["x"] + found["width"], size["width"] + 1, what or locator)

    def all_in_sight(self, locator, count=None):
        found = locator.all()
        if count is not None:
            self.assertEqual(len(found), count)
        self.assertTrue(found)
        for one in found:
            self.in_sight(one)

    def strip_is_one_row(self):
        self.assertLessEqual(self.box(".strip")["height"], STRIP_MOST)
        cells = self.page.locator("#strip .reading").all()
        self.assertTrue(0 < len(cells) <= 7)
        tops = {round(cell.bounding_box()["y"]) for cell in cells}
        self.assertEqual(len(tops), 1, "one row")

    def demo(self, model, **named):
        with scopes_disabled():
            return model.objects.get(**named)


class OnADesk(Bench):
    def test_clients(self):
        self.open("/clients/")
        rows = self.page.locator("table.clients tbody tr")
        self.assertGreaterEqual(rows.count(), 10)
        for row in rows.all()[:10]:
            self.in_sight(row)
            cells = [cell.inner_text() for cell in row.locator("td").all()]
            self.assertTrue(all(cells), "name, goal, weight, pace, what needs a look, next step")
        self.in_sight("#q")
        self.in_sight("#show")
        self.page.locator("#show").select_option(label="kidney")
        expect(self.page.get_by_role("link", name="Ilse Varga-Holm", exact=True)).to_be_visible()
        expect(self.page.get_by_role("link", name="Osk Brannigan", exact=True)).to_have_count(0)
        self.page.locator("#q").fill("ilse")
        expect(self.page.locator("table.clients tbody tr")).to_have_count(1)

    def test_a_client(self):
        for name in ("Osk Brannigan", "Ilse Varga-Holm", "Runa Tveit"):
            with self.subTest(name):
                pk = self.demo(Client, name=name).pk
                self.open(f"/clients/{pk}/")
                for what in ("h1", "#cautions", ".next-step", "#targets", "#weight .weight-chart"):
                    self.in_sight(what)
                self.all_in_sight(self.page.locator("#targets tbody tr"))
                self.assertLessEqual(self.page.locator("#targets tbody tr").count(), 7)
                self.in_sight(self.page.get_by_label("Days and bowls"))

    def test_a_recipe_of_fourteen_lines(self):
        page = self.page
        recipe = self.demo(Recipe, title="Bean and barley soup")
        client = self.demo(Client, name="Osk Brannigan")
        self.open(f"/for/{client.pk}/recipes/{recipe.pk}/")
        page.get_by_label("Ingredients, one a line").fill(FOURTEEN)
        expect(page.locator(".line-row")).to_have_count(14)
        expect(page.locator(".line-row.unsettled")).to_have_count(1)
        self.all_in_sight(page.locator(".line-row"), 14)
        self.in_sight(page.get_by_label("To settle"))
        expect(page.get_by_label("To settle")).to_contain_text("1 ladle of the red stuff")
        serving = page.get_by_label("One serving", exact=True)
        for name in ("Energy", "Protein", "Sodium", "Potassium"):
            self.in_sight(serving.get_by_role("row", name=name).first)
        self.strip_is_one_row()
        written = page.locator("#id_text").bounding_box()["y"]
        first = page.locator(".line-row").first.bounding_box()["y"]
        self.assertLess(abs(written - first), 12, "each line beside what it was read as")

    def test_a_bowl_of_eight_parts(self):
        page = self.page
        bowl = self.demo(Bowl, name="Keel and ribs")
        with scopes_disabled():
            bowl.parts.all().delete()
            for place, (role, food, grams) in enumerate(EIGHT):
                BowlPart.objects.create(bowl=bowl, role=role, food=food, grams=grams, place=place)
        self.open(f"/for/{bowl.client_id}/bowls/{bowl.pk}/")
        self.strip_is_one_row()
        self.in_sight("#the-round")
        lines = page.locator(".part-line")
        self.all_in_sight(lines, 8)
        for line in lines.all():
            self.assertLess(line.bounding_box()["height"], 44, "one line each")
            self.in_sight(line.locator("[data-amount]"))
        self.in_sight(page.get_by_text("kcal/g").nth(1))
        self.in_sight(page.get_by_label("Protein by source"))
        self.in_sight(page.get_by_label("Food or recipe"))
        # the meal's share, said and to be changed
        expect(page.get_by_label("Judged as")).to_be_visible()
        before = page.locator("#strip").inner_text()
        page.get_by_label("Judged as").select_option("day")
        expect(page.locator("#strip")).not_to_have_text(before)

    def test_days(self):
        for name in ("Osk Brannigan", "Wren Adeyemi-Lund", "Pilar Eastwick"):
            with self.subTest(name), scopes_disabled():
                day = Day.objects.filter(client__name=name).order_by("date")[1:].first()
                day = day or Day.objects.filter(client__name=name).get()
                self.open(f"/for/{day.client_id}/days/{day.pk}/")
                self.strip_is_one_row()
                for meal in self.page.locator(".meal").all():
                    self.in_sight(meal.locator("h2"))
                    self.in_sight(meal.locator("[data-add]"))
                self.all_in_sight(self.page.locator(".meal .part-line"))
                self.in_sight("#cautions")

    def test_cautions_are_one_bar(self):
        page = self.page
        quiet, stopping = 0, 0
        with scopes_disabled():
            days = list(Day.objects.filter(client__removed=None))
        for day in days[:14]:
            self.open(f"/for/{day.client_id}/days/{day.pk}/")
            stops = page.locator("#cautions > .stop-and-ask")
            height = (page.locator("#cautions").bounding_box() or {"height": 0})["height"]
            if stops.count():
                stopping += 1
                for stop in stops.all():
                    self.in_sight(stop)
                    self.assertGreaterEqual(stop.locator(".ways > *").count(), 1)
            else:
                quiet += 1
                self.assertLessEqual(height, CAUTIONS_MOST)
        self.assertTrue(quiet and stopping)

    def test_balance_and_swaps_with_outline_and_strip(self):
        page = self.page
        bowl = self.demo(Bowl, name="Keel and ribs")
        self.open(f"/for/{bowl.client_id}/bowls/{bowl.pk}/")
        page.keyboard.press("b")
        expect(page.locator("#balance .proposal")).to_be_visible()
        page.wait_for_timeout(300)
        self.in_sight("#balance .proposal-body")
        self.in_sight("#the-round")
        self.in_sight(page.get_by_role("button", name="Take what is ticked"))
        expect(page.locator("#the-round .ghost").first).to_be_attached()
        expect(page.locator("#strip .then").first).to_be_visible()
        self.strip_is_one_row()
        page.get_by_role("link", name="Close").click()
        expect(page.locator("#strip .then")).to_have_count(0)
        page.keyboard.press("s")
        expect(page.locator("#swaps .swap").first).to_be_visible()
        expect(page.locator("#the-round .ghost").first).to_be_attached()
        expect(page.locator("#strip .then").first).to_be_visible()
        self.in_sight(page.locator("#swaps .swap").first)
        self.in_sight("#the-round")


class OnATablet(Bench):
    viewport = {"width": TABLET[0], "height": TABLET[1]}

    def test_bowl_day_and_clients_show_their_work(self):
        page = self.page
        bowl = self.demo(Bowl, name="Harbor night flask")
        self.open(f"/for/{bowl.client_id}/bowls/{bowl.pk}/")
        self.in_sight("#the-round")
        self.all_in_sight(page.locator(".part-line"))
        self.in_sight(page.get_by_label("Food or recipe"))
        with scopes_disabled():
            day = Day.objects.filter(client=bowl.client_id, entries__isnull=False).first()
        self.open(f"/for/{bowl.client_id}/days/{day.pk}/")
        self.all_in_sight(page.locator(".meal"))
        self.open("/clients/")
        for row in page.locator("table.clients tbody tr").all()[:10]:
            self.in_sight(row)


class OnAPhone(Bench):
    viewport = {"width": PHONE[0], "height": PHONE[1]}

    def test_the_first_screen_shows_the_work_and_the_strip_is_a_line_that_opens(self):
        page = self.page
        bowl = self.demo(Bowl, name="Harbor night flask")
        self.open(f"/for/{bowl.client_id}/bowls/{bowl.pk}/")
        line = page.locator(".strip-line")
        self.assertLess(self.box(line)["height"], 40)
        self.assertRegex(line.inner_text(), r"\d of \d inside")
        expect(page.locator("#strip .reading").first).to_be_hidden()
        self.assertLess(self.box(".parts")["y"], PHONE[1] / 2, "the parts begin in the upper half")
        for part in page.locator(".part-line").all()[:4]:
            self.in_sight(part)
        page.evaluate("window.scrollTo(0, 600)")
        self.assertLess(self.box(line)["y"], 5, "it stays in sight")
        page.evaluate("window.scrollTo(0, 0)")
        line.click()
        expect(page.locator("#strip .reading").first).to_be_visible()
        page.locator("#strip .reading summary").first.click()
        expect(page.locator("#strip .reading-more").first).to_be_visible()

    def test_clients_say_what_needs_a_look_within_the_screen(self):
        self.open("/clients/")
        first = self.page.locator("table.clients tbody tr").first
        for part in (".who", ".need", "a"):
            self.in_sight(first.locator(part).first)

    def test_a_days_meals_and_a_recipes_lines(self):
        page = self.page
        client = self.demo(Client, name="Osk Brannigan")
        with scopes_disabled():
            day = Day.objects.filter(client=client).order_by("date").first()
        self.open(f"/for/{client.pk}/days/{day.pk}/")
        self.in_sight(page.locator(".meal").first)
        recipe = self.demo(Recipe, title="Bean and barley soup")
        self.open(f"/for/{client.pk}/recipes/{recipe.pk}/")
        self.assertLess(self.box("#id_text")["y"], PHONE[1] * 0.6)


class AtWork(Bench):
    def test_adding_keeps_the_keyboard_empties_itself_and_takes_an_amount(self):
        page = self.page
        bowl = self.demo(Bowl, name="Keel and ribs")
        self.open(f"/for/{bowl.client_id}/bowls/{bowl.pk}/")
        count = page.locator(".part").count()
        page.keyboard.press("a")
        field = page.get_by_label("Food or recipe")
        expect(field).to_be_focused()
        page.keyboard.type("200 g cooked millet", delay=5)
        page.keyboard.press("Enter")
        expect(page.get_by_label("Amount of Millet, cooked", exact=True)).to_have_value("200 g")
        expect(field).to_be_focused()
        expect(field).to_have_value("")
        page.keyboard.type("kohlrabi", delay=5)
        expect(page.locator("#found [role=option]").first).to_be_visible()
        page.keyboard.press("ArrowDown")
        page.keyboard.press("ArrowUp")
        page.keyboard.press("Enter")
        expect(page.locator(".part")).to_have_count(count + 2)
        expect(field).to_be_focused()

    def test_what_changed_is_marked_said_and_nothing_moves(self):
        page = self.page
        bowl = self.demo(Bowl, name="Keel and ribs")
        self.open(f"/for/{bowl.client_id}/bowls/{bowl.pk}/")
        page.evaluate("window.scrollTo(0, 120)")
        amount = page.locator("[data-amount]").first
        amount.focus()
        at = page.evaluate("window.scrollY")
        page.keyboard.press("+")
        expect(page.locator(".just-changed").first).to_be_attached()
        expect(page.locator("#said")).not_to_be_empty()
        expect(page.locator("[data-amount]").first).to_be_focused()
        self.assertEqual(page.evaluate("window.scrollY"), at)
        expect(page.locator(".just-changed")).to_have_count(0)

    def test_set_buttons_are_there_only_without_script(self):
        client = self.demo(Client, name="Osk Brannigan")
        with scopes_disabled():
            day = Day.objects.filter(client=client).first()
        for path in (f"/days/{day.pk}/", f"/bowls/{self.demo(Bowl, client=client).pk}/"):
            self.open(path)
            seen = [
                button
                for button in self.page.get_by_role("button", name="Set", exact=True).all()
                if button.bounding_box()["width"] > 2
            ]
            self.assertEqual(seen, [])

    def test_the_finder_opens_anything_from_anywhere(self):
        page = self.page
        self.open("/schools/")
        for typed, opened in (
            ("ilse", "Ilse Varga-Holm"),
            ("lamp-room", "Lamp-room salad"),
            ("bean and barley", "Bean and barley soup"),
            ("kohlrabi raw", "Kohlrabi, raw"),
            ("time zone", "The practice"),
        ):
            page.keyboard.press("/")
            expect(page.locator("#finder-q")).to_be_focused()
            page.keyboard.type(typed, delay=5)
            page.keyboard.press("Enter")
            expect(page.locator("h1")).to_have_text(re.compile(re.escape(opened)))
            self.there()
        # a look for more that the opened page cuts off is no complaint
        self.complaints = [one for one in self.complaints if not one.startswith("htmx:")]

    def test_letters_can_be_turned_off(self):
        page = self.page
        self.open("/you/")
        page.get_by_label("single-letter keys").uncheck()
        page.get_by_role("button", name="Save").click()
        expect(page.get_by_text("Saved.")).to_be_visible()
        page.locator("h1").click()
        page.keyboard.press("/")
        page.keyboard.press("?")
        page.wait_for_timeout(200)
        expect(page.locator("dialog[open]")).to_have_count(0)

    def test_a_number_opens_to_its_row(self):
        page = self.page
        bowl = self.demo(Bowl, name="Harbor night flask")
        self.open(f"/for/{bowl.client_id}/bowls/{bowl.pk}/")
        page.locator("#strip .reading summary").nth(1).click()
        page.get_by_role("link", name="Where this number comes from").first.click()
        why = page.locator("#why")
        expect(why.get_by_role("heading", name="Protein of Harbor night flask")).to_be_visible()
        why.locator("summary", has_text="Soy mince").first.click()
        why.locator("li li summary", has_text="soy mince").first.click()
        expect(why.get_by_text("Row of the table").first).to_be_visible()
        page.get_by_role("button", name="Close").click()
        expect(why).to_be_hidden()

    def test_a_recipe_keeps_itself_while_it_is_written(self):
        page = self.page
        recipe = self.demo(Recipe, title="Bean and barley soup")
        self.open(f"/recipes/{recipe.pk}/")
        page.get_by_label("Ingredients, one a line").press("Control+End")
        with self.kept("200 g kohlrabi"):
            page.keyboard.type("\n200 g kohlrabi")
        expect(page.locator(".line-row")).to_have_count(11)
        expect(page.locator("#kept-status")).to_have_text("saved")
        page.reload()
        expect(page.get_by_label("Food for 200 g kohlrabi")).to_have_value("Kohlrabi, raw")
        expect(page.get_by_role("link", name="Versions (1)")).to_be_visible()

    def test_an_unknown_food_is_searched_made_or_left_out_with_a_reason(self):
        page = self.page
        self.open("/recipes/new/")
        page.get_by_label("Ingredients, one a line").fill("100 g kale\n1 ladle of the red stuff")
        settle = page.get_by_label("To settle")
        expect(settle.get_by_role("button", name="Search")).to_be_visible()
        settle.get_by_role("button", name="Search").click()
        expect(page.get_by_label("Food for 1 ladle of the red stuff")).to_be_focused()
        settle.get_by_role("button", name="Leave it out").click()
        page.keyboard.type("nobody eats it")
        page.keyboard.press("Enter")
        expect(page.get_by_text("every line settled")).to_be_visible()
        expect(page.get_by_text("Not counted: 1 ladle of the red stuff")).to_be_visible()

    def test_a_first_visit_keeps_sections_left_and_targets_right_and_leaves_nothing_blank(self):
        page = self.page
        self.open("/clients/")
        page.get_by_role("button", name="New client").click()
        page.wait_for_url("**/first-visits/*/")
        self.open("/clients/")
        page.get_by_role("button", name="New client").click()
        page.get_by_label("Name", exact=True).fill("Isa Korhonen")
        page.get_by_label("Birth date or age").fill("April 12, 1985")
        page.get_by_label("Height [cm]").fill("168")
        page.get_by_label("Weight [kg]", exact=True).fill("66")
        page.get_by_label("Sex used in equations").select_option("female")
        expect(page.get_by_label("What can be said so far")).to_contain_text("kcal")
        page.evaluate("window.scrollTo(0, 900)")
        for name in ("Sections of the first visit", "What can be said so far"):
            box = page.get_by_label(name).bounding_box()
            self.assertTrue(0 <= box["y"] < 60, f"{name} stays in view")
        page.get_by_role("button", name="Make the client").first.click()
        expect(page.get_by_role("heading", name="Isa Korhonen")).to_be_visible()
        expect(page.locator(".who-line")).to_contain_text(re.compile(r"\d\d years, 168 cm"))
        self.open("/clients/")
        expect(page.get_by_text("First visit begun")).to_have_count(1)

    def test_a_days_handout_is_one_page(self):
        page = self.page
        with scopes_disabled():
            days = list(Day.objects.filter(client__name__in=["Ilse Varga-Holm", "Osk Brannigan"]))
        for day in days:
            self.open(f"/for/{day.client_id}/handouts/days/{day.pk}/")
            pdf = page.pdf(format="Letter")
            self.assertEqual(len(re.findall(rb"/Type\s*/Page\b", pdf)), 1)
            expect(page.locator("article")).not_to_contain_text("under by")
