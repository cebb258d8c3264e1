"""A package is copied in a browser and used; a match that is settled once stays settled."""

from playwright.sync_api import expect

from e2e.case import BrowserCase

PRINTED = (
    ("Energy [kcal]", "200"),
    ("Fat [g]", "17"),
    ("Saturated fat [g]", "2"),
    ("Sodium [mg; salt: g]", "120"),
    ("Carbohydrate [g]", "7"),
    ("Fiber [g]", "3"),
    ("Sugars [g]", "3"),
    ("Added sugars [g]", "3"),
    ("Protein [g]", "6"),
)


class Packages(BrowserCase):
    def test_a_label_becomes_a_food_on_one_screen(self):
        page = self.page
        self.open("/clients/")
        self.follow("Pantry")
        self.follow("Copy a package")
        page.get_by_label("What you call it").fill("Gannet seed spread")
        page.get_by_label("A serving is").fill("2 tbsp")
        page.get_by_label("It weighs").fill("32 g")
        page.get_by_label("Servings in it").fill("about 14")
        for label, value in PRINTED:
            page.get_by_label(label, exact=True).fill(value)
        page.get_by_label("Ingredients, with").press_sequentially(
            "Sunflower seeds, cane sugar, palm oil, salt", delay=2
        )
        page.get_by_label("What its front claims").press_sequentially("no added sugar", delay=2)
        seen = page.locator("#seen")
        expect(seen.get_by_text("no. 2 of 4 by weight")).to_be_visible()
        expect(seen.get_by_text("Does not hold")).to_be_visible()
        seen.get_by_label("Eaten of it").press_sequentially("half the package", delay=2)
        expect(seen.get_by_text("Eaten 224 g")).to_be_visible()
        expect(seen.get_by_label("Eaten of it")).to_be_focused()
        page.get_by_role("button", name="Save").click()
        expect(page.get_by_text("It is found wherever foods are looked for")).to_be_visible()
        self.follow("Recipes")
        self.follow("Write a recipe")
        page.get_by_label("Ingredients, one a line").press_sequentially(
            "1 tbsp gannet seed spread", delay=2
        )
        reading = page.get_by_label("Each line as it was read")
        expect(page.get_by_text("every line settled")).to_be_visible()
        expect(reading.get_by_label("Food for 1 tbsp gannet seed spread")).to_have_value(
            "Gannet seed spread"
        )

    def test_chosen_once_it_stays_settled(self):
        page = self.page
        self.open("/clients/")
        self.follow("Recipes")
        self.follow("Write a recipe")
        page.get_by_label("Title").fill("Rice for the boats")
        page.get_by_label("Ingredients, one a line").press_sequentially("1 cup rice", delay=2)
        food = page.get_by_label("Food for 1 cup rice")
        expect(food).to_be_visible()
        food.fill("white rice medium")
        page.get_by_role("option", name="White rice, medium-grain, dry").click()
        expect(food).to_have_value("White rice, medium-grain, dry")
        always = page.get_by_label("always so here: “rice”, once saved")
        always.check()
        expect(always).to_be_checked()
        page.get_by_role("button", name="Save").click()
        expect(
            page.get_by_text("From now on “rice” means White rice, medium-grain, dry here.")
        ).to_be_visible()
        self.follow("Recipes")
        self.follow("Write a recipe")
        page.get_by_label("Ingredients, one a line").press_sequentially("2 cups rice", delay=2)
        page.get_by_text("What was assumed").click()
        expect(page.get_by_text("Always so here: white rice, medium-grain, dry.")).to_be_visible()
        self.follow("Pantry")
        self.follow("Words of the practice")
        page.get_by_role("row", name="rice White rice, medium-grain, dry").get_by_role(
            "button"
        ).click()
        expect(page.get_by_text("means again what it means to everybody")).to_be_visible()
