"""Every page, and what opens in it: nothing for axe-core to find; nothing wider than the screen, on
a phone or with text twice as large; less motion, more contrast, paper."""

from django_scopes import scopes_disabled

from bowls.models import Bowl
from clients.models import Client, Intake
from e2e.case import BrowserCase
from journal.models import Letter, LoggedDay, Visit
from kitchen.models import CookingSession
from pantry.models import OwnFood
from planner.models import Day
from recipes.models import Recipe
from schools.models import OwnSchool
from shared_with.addresses import address_of
from shared_with.models import Link
from week.models import Week

# Of a client's own link.
LINK_PAGES = ("today", "cooking", "shopping", "tell", "lesson")


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
            letter = Letter.objects.get()
            link = Link.objects.get()
            week = Week.objects.get(client__name="Jens Halloran")
            note = Visit.objects.filter(client=losing).first().pk
            cooking = CookingSession.objects.get(client=losing).pk
            cooked = CookingSession.objects.get(client=week.client_id).pk
            logged = LoggedDay.objects.filter(client=losing).first().date
        handed = f"/for/{letter.client_id}"
        three = f"/for/{week.client_id}"
        journal = f"/for/{losing}/journal"
        return [
            "/people/",
            "/you/",
            "/you/password/",
            "/you/second-step/",
            "/installation/",
            "/rights/practice/",
            "/rights/practice/record/",
            f"/for/{losing}/rights/",
            f"/for/{losing}/rights/record/?show=all",
            f"/for/{losing}/rights/erase/",
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
            "/journal/",
            f"{journal}/",
            f"{journal}/weights/",
            f"{journal}/days/{logged}/",
            f"{journal}/days/{logged}/recall/",
            f"{journal}/days/{logged}/recall/?pass=time",
            f"{journal}/eaten/",
            f"{journal}/stall/",
            f"{journal}/visits/",
            f"{journal}/visits/{note}/",
            f"{three}/journal/liked/",
            f"/for/{client}/journal/blood/",
            f"/for/{client}/journal/",
            "/days/",
            f"/days/{day}/",
            f"/handouts/bowls/{bowl}/",
            f"/handouts/days/{day}/",
            f"/handouts/recipes/{changed}/?for=2",
            f"{handed}/handouts/",
            f"{handed}/handouts/calendar/",
            f"{handed}/journal/letters/",
            f"{handed}/journal/letters/{letter.pk}/",
            f"{handed}/journal/letters/{letter.pk}/paper/",
            f"{handed}/links/",
            *(address_of(link, page) for page in LINK_PAGES),
            "/exchange/client/",
            "/exchange/tables/",
            "/weeks/",
            f"{three}/weeks/",
            f"{three}/weeks/skeleton/",
            f"{three}/weeks/favorites/",
            f"{three}/weeks/{week.pk}/",
            f"{three}/weeks/{week.pk}/?slot=2-dinner-0",
            f"{three}/weeks/{week.pk}/door/",
            f"{three}/weeks/{week.pk}/cooking/",
            f"{three}/weeks/{week.pk}/labels/",
            f"{three}/shopping/{week.pk}/",
            f"{three}/kitchen/house/",
            "/kitchen/",
            f"/for/{losing}/kitchen/",
            f"/for/{losing}/kitchen/{cooking}/",
            f"/for/{losing}/kitchen/{cooking}/sheet/",
            f"/for/{losing}/kitchen/{cooking}/cook/",
            f"/for/{losing}/kitchen/{cooking}/weigh/",
            f"{three}/kitchen/{cooked}/labels/",
            f"/kitchen/recipes/{recipe}/",
            "/kitchen/pieces/?mix_g=200&wanted=5&said_g=27",
            f"/for/{client}/kitchen/bowls/{bowl}/",
            "/shopping/packages/",
        ]

    # a tablet, a window of 1280 by 800 at 200 %, a phone
    NARROW = ((820, 1180), (640, 400), (390, 844))

    def test_nothing_for_axe_to_find_and_nothing_wider_than_its_screen(self):
        for path in [*self.pages(), "/sign-in/"]:
            self.page.set_viewport_size(self.viewport)
            if path == "/sign-in/":
                self.page.get_by_role("button", name="Sign out").click()
                self.page.wait_for_url("**/sign-in/**")
            self.open(path)
            with self.subTest(path):
                self.assertEqual(self.axe_finds(), [])
            for width, height in self.NARROW:
                self.page.set_viewport_size({"width": width, "height": height})
                with self.subTest(path, width=width):
                    self.assertLessEqual(self.widest(), width)
                    overhead = self.page.locator(".overhead")
                    if width == 640 and overhead.count():
                        self.assertLess(overhead.bounding_box()["height"], 200, "work under it")
        # the page of the scale looks for one, and none is there
        self.complaints = [one for one in self.complaints if ":8137/" not in one]

    def widest(self):
        return self.page.evaluate("document.documentElement.scrollWidth")

    def test_nor_in_what_opens(self):
        page = self.page
        with scopes_disabled():
            bowl = Bowl.objects.get(name="Harbor night flask")
            day = Day.objects.filter(client=bowl.client_id).order_by("date").first().pk
            recipe = Recipe.objects.get(title="Grandmother's pot, to be settled").pk
        ahead = f"/for/{bowl.client_id}"
        states = (
            (f"{ahead}/bowls/{bowl.pk}/", lambda: page.locator(".reading summary").nth(2).click()),
            (f"{ahead}/bowls/{bowl.pk}/", lambda: page.locator(".strip-rest > summary").click()),
            (
                f"{ahead}/bowls/{bowl.pk}/",
                lambda: page.locator(".aside-form > *").first.click(),
            ),
            (f"{ahead}/bowls/{bowl.pk}/", lambda: page.locator(".put-into > summary").click()),
            (f"{ahead}/bowls/{bowl.pk}/", lambda: page.locator("#q").fill("dill")),
            (f"{ahead}/bowls/{bowl.pk}/", lambda: page.keyboard.press("b")),
            (f"{ahead}/bowls/{bowl.pk}/", lambda: page.keyboard.press("s")),
            (f"{ahead}/bowls/{bowl.pk}/", lambda: page.keyboard.press("?")),
            (f"{ahead}/bowls/{bowl.pk}/", lambda: page.keyboard.press("/")),
            (f"{ahead}/days/{day}/", lambda: page.locator(".lesser > summary").first.click()),
            (f"{ahead}/days/{day}/", lambda: page.locator("[data-add]").first.fill("bean")),
            (f"{ahead}/days/{day}/", lambda: page.locator(".meal-head a").first.click()),
            (f"/recipes/{recipe}/", lambda: page.locator(".line-food").first.fill("beans")),
            (f"{ahead}/clients/{bowl.client_id}/", self.open_all),
        )
        for path, do in states:
            self.open(path)
            do()
            page.wait_for_timeout(700)
            with self.subTest(path, state=states.index((path, do))):
                # what opens lies over what is under it, which is not to be reached meanwhile
                found = [one for one in self.axe_finds() if not one.startswith("target-size")]
                self.assertEqual(found, [])
        page.set_viewport_size({"width": 390, "height": 844})
        self.open(f"{ahead}/bowls/{bowl.pk}/")
        page.locator(".menu-button").click()
        page.locator(".strip-line").click()
        self.assertEqual([one for one in self.axe_finds() if "target-size" not in one], [])

    def open_all(self):
        self.page.evaluate(
            "for (const one of document.querySelectorAll('details')) one.open = true"
        )

    def test_reduced_motion_and_high_contrast_are_respected(self):
        page = self.page
        page.emulate_media(reduced_motion="reduce")
        self.open("/clients/")
        moving = page.evaluate(
            "[...document.querySelectorAll('*')].filter((one) => "
            "parseFloat(getComputedStyle(one).transitionDuration) > 0).length"
        )
        self.assertEqual(moving, 0)
        page.emulate_media(contrast="more")
        quiet = "getComputedStyle(document.querySelector('.quiet')).color"
        self.assertEqual(page.evaluate(quiet), "rgb(22, 32, 46)")

    def test_on_paper_there_is_little_ink(self):
        with scopes_disabled():
            bowl = Bowl.objects.get(name="Harbor night flask")
        self.page.emulate_media(media="print")
        for path in (f"/compare/ladder/?with=bowl-{bowl.pk}", f"/handouts/bowls/{bowl.pk}/"):
            self.open(path)
            with self.subTest(path):
                shown = self.page.evaluate("getComputedStyle(document.body).backgroundColor")
                self.assertEqual(shown, "rgb(255, 255, 255)")
                for gone in (".shelf", ".overhead"):
                    found = self.page.locator(gone)
                    self.assertFalse(found.count() and found.first.is_visible())
