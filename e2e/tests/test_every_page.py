"""Every page: nothing serious for axe-core, and nothing wider than the screen on a tablet or a
phone."""

from axe_playwright_python.sync_playwright import Axe
from django_scopes import scopes_disabled

from bowls.models import Bowl
from clients.models import Client, Intake
from e2e.case import BrowserCase
from pantry.models import OwnFood
from planner.models import Day
from recipes.models import Recipe
from schools.models import OwnSchool

SERIOUS = {"serious", "critical"}


class EveryPage(BrowserCase):
    def pages(self):
        with scopes_disabled():
            client = Client.objects.get(name="Ilse Varga-Holm").pk
            bowl = Bowl.objects.get(name="Harbor night flask").pk
            day = Day.objects.filter(client=client).first().pk
            recipe = Recipe.objects.get(title="Grandmother's pot, to be settled").pk
            sauce = Recipe.objects.get(title="Sunflower and dill sauce").pk
            changed = Recipe.objects.get(title="Dill barley with white beans").pk
            package = OwnFood.objects.get(name="Oat drink, harbor shop").pk
            other = OwnFood.objects.get(name="Soy drink, plain, harbor shop").pk
            visit = Intake.objects.get().pk
            own = OwnSchool.objects.get()
            losing = Client.objects.get(name="Osk Brannigan").pk
        return [
            "/clients/",
            f"/clients/first-visits/{visit}/",
            f"/clients/{losing}/",
            "/schools/",
            f"/schools/{own.code}/",
            f"/schools/own/{own.pk}/",
            f"/clients/{client}/",
            f"/clients/{client}/edit/",
            f"/clients/{client}/targets/protein_g/",
            "/pantry/",
            "/pantry/?q=kale",
            "/pantry/packages/",
            "/pantry/packages/new/",
            f"/pantry/packages/{package}/?amount=half+the+package",
            f"/for/{client}/pantry/packages/beside/?one={package}&other={other}",
            "/pantry/packages/import/",
            "/pantry/words/",
            "/pantry/freekeh-dry/",
            "/practice/",
            "/pantry/kohlrabi-raw/",
            "/recipes/",
            "/recipes/new/",
            "/recipes/import/",
            f"/recipes/{recipe}/",
            f"/recipes/{changed}/versions/",
            f"/recipes/{changed}/cook/",
            f"/recipes/{changed}/scale/?to=servings&amount=9",
            "/bowls/",
            f"/bowls/{bowl}/",
            f"/bowls/{bowl}/balance/",
            f"/bowls/{bowl}/swaps/",
            f"/days/{day}/balance/",
            f"/days/{day}/swaps/",
            f"/recipes/{changed}/swaps/",
            f"/bowls/sauces/{sauce}/?volume_ml=231&bowls=9&per_bowl_ml=45&thinner=water&key=fat_g&most=2",
            f"/compare/?with=bowl-{bowl}&with=food-walnuts&basis=calories&q=bean",
            "/compare/",
            f"/compare/ladder/?with=bowl-{bowl}",
            f"/compare/lesson/?with=bowl-{bowl}&with=food-walnuts&basis=calories",
            f"/bowls/{bowl}/find/?q=dill",
            "/days/",
            f"/days/{day}/",
            f"/handouts/bowls/{bowl}/",
            f"/handouts/days/{day}/",
        ]

    def test_axe_finds_nothing_serious(self):
        axe = Axe()
        for path in [*self.pages(), "/sign-in/"]:
            if path == "/sign-in/":
                self.page.get_by_role("button", name="Sign out").click()
            self.open(path)
            with self.subTest(path):
                found = [
                    f"{violation['id']}: {violation['help']} "
                    f"({violation['nodes'][0]['html'][:160]})"
                    for violation in axe.run(self.page).response["violations"]
                    if violation["impact"] in SERIOUS
                ]
                self.assertEqual(found, [])

    def test_no_page_is_wider_than_a_tablet_or_a_phone(self):
        for width in (820, 390):
            self.page.set_viewport_size({"width": width, "height": 800})
            for path in self.pages():
                self.open(path)
                with self.subTest(path, width=width):
                    self.assertLessEqual(
                        self.page.evaluate("document.documentElement.scrollWidth"), width
                    )
