"""Fill an empty database with the demo practice: made-up people in a made-up harbor town."""

from __future__ import annotations

import math
from datetime import timedelta
from pathlib import Path

from django.utils import timezone
from django_scopes import scope

from bowls.models import Bowl, BowlPart
from clients.models import Client, TargetOverride, WeighIn
from planner.models import Day, DayEntry
from practice.models import Practice, User
from recipes.facts import facts_of
from recipes.models import Recipe

HERE = Path(__file__).resolve().parent
NAME, PASSWORD = "marin", "tern-point-kettle"
OTHER_NAME, OTHER_PASSWORD = "solveig", "gull-rock-ladle"

CLIENTS = [
    dict(key="ferry", name="Osk Brannigan", about="Ferry engineer on night shifts; wants to lose weight", sex="male", birth_year=1981,
         height_cm=183, weight_kg=104, activity="low_active", goal="lose", allergies=["mustard"],
         notes="Eats at 9 pm, 2 am and after the shift. A wide flask, no kitchen on board. Two cooking times a week."),
    dict(key="charts", name="Ilse Varga-Holm", about="Retired chart-maker", sex="female", birth_year=1954, height_cm=164, weight_kg=61.5,
         activity="inactive", goal="hold", allergies=[], conditions="Kidney disease stage 3b, stable. Takes a potassium-raising blood pressure tablet.",
         notes="Small portions, measures everything. Her nephrologist set protein, potassium and phosphorus."),
    dict(key="rower", name="Tomaz Quill", about="Rowing coach building strength", sex="male", birth_year=1992, height_cm=188, weight_kg=86,
         activity="very_active", goal="muscle", allergies=["tree nuts"], notes="Trains at six and at four. Weighs his food in grams."),
    dict(key="museum", name="Pilar Eastwick", about="Lighthouse-museum guide who skips breakfast", sex="female", birth_year=1988, height_cm=170,
         weight_kg=72, activity="low_active", goal="lose", allergies=[], notes="Two meals: a big salad with beans at noon, soup and greens at seven. No oil."),
    dict(key="boats", name="Wren Adeyemi-Lund", about="Boatbuilder, second trimester", sex="female", birth_year=1995, height_cm=168, weight_kg=69,
         activity="active", goal="hold", allergies=["sesame"], conditions="Pregnant, second trimester. Midwife follows her iron. Takes B12 and iodine.",
         notes="Hungry at ten and at four. Works on her feet; no raw sprouts."),
]  # fmt: skip

# key: days of weigh-ins, first weight, kg a week, wobble
WEIGHTS = {"ferry": (70, 107.4, -0.45, 0.6), "rower": (56, 84.1, 0.22, 0.4), "museum": (63, 72.6, 0.01, 0.5), "charts": (49, 61.2, 0.03, 0.3), "boats": (35, 67.4, 0.38, 0.3)}
LAST_WEIGHED_DAYS_AGO = {"charts": 19}

ORDERS = {
    "charts": [
        ("protein_g", 34, 37, 40, "order", "Nephrology letter: 0.6 g per kg"),
        ("potassium_mg", None, 2000, 2400, "order", "Nephrology letter: below 2.4 g"),
        ("phosphorus_mg", None, 800, 1000, "order", "Nephrology letter: below 1 g, no additives"),
        ("sodium_mg", None, 1500, 2000, "order", "Nephrology letter: below 2 g"),
    ],
    "boats": [("energy_kcal", 2300, 2500, 2750, "choice", "Second trimester: 340 kcal over the day's need"), ("iron_mg", 27, 30, 45, "order", "Midwife: 27 mg in pregnancy, more from plants")],
    "rower": [("calcium_mg", 1000, 1200, 2500, "choice", "Reference intake; he takes no dairy")],
}

# bowl name, client, vessel, parts: (role, "recipe title" or food slug, grams, star)
BOWLS = [
    ("Harbor night flask", "ferry", 1500, [("base", "Dill barley with white beans", 260), ("vegetable", "Roast carrots with caraway", 100), ("greens", "kale-raw", 40), ("protein", "Soy mince with caraway and peppers", 300), ("sauce", "Sunflower and dill sauce", 25), ("topping", "pumpkin-seeds", 8)]),
    ("Chart-maker's small plate", "charts", 700, [("base", "Double-boiled potatoes with chives", 150), ("vegetable", "Green beans with walnut crumbs", 100), ("protein", "Firm tofu, dill and mustard crust", 70), ("sauce", "Beet and horseradish sauce", 30), ("topping", "lemon-zest", 2)]),
    ("Boathouse eight", "rower", 1900, [("base", "Freekeh with kohlrabi and mint", 320), ("vegetable", "Steam-fried cauliflower with turmeric", 180), ("greens", "Swiss chard, garlic, vinegar", 90), ("protein", "Seitan and leek braise", 240), ("protein", "edamame-cooked", 100), ("sauce", "Miso and ginger dressing", 35), ("topping", "hemp-seeds-hulled", 15)]),
    ("Lamp-room salad", "museum", 1500, [("greens", "romaine-lettuce-raw", 140), ("greens", "arugula-raw", 40), ("vegetable", "Kohlrabi slaw with dill", 120), ("vegetable", "mushrooms-white-raw", 60), ("protein", "black-beans-canned-drained-and-rinsed", 130), ("sauce", "White bean ranch-style pour", 60), ("topping", "Toasted seed sprinkle", 12), ("topping", "strawberries-raw", 100)]),
    ("Keel and ribs", "boats", 1500, [("base", "Buckwheat and fennel pan", 260), ("vegetable", "Braised red cabbage and beet", 140), ("greens", "spinach-raw", 50), ("protein", "Black lentils with beet and orange", 220), ("sauce", "Parsley, caper and lemon spoon sauce", 30), ("topping", "walnuts", 14)]),
    ("Six-plant tide bowl", None, 1200, [("base", "Millet with roast celeriac", 240), ("vegetable", "Roast fennel and red onion", 130), ("vegetable", "bell-pepper-red-raw", 60), ("greens", "Kale with lemon and sesame", 70), ("protein", "Split mung and spinach pot", 220), ("sauce", "Thin sesame and lemon sauce", 30)]),
    ("Spilling over", None, 500, [("base", "quinoa-cooked", 250), ("vegetable", "carrots-raw", 120), ("protein", "Adzuki beans with squash", 260), ("greens", "kale-raw", 60)]),
]  # fmt: skip

# client: list of (days from today, note, {meal: [(kind, name or slug, amount)]})
DAYS = {
    "ferry": [(offset, note, {"breakfast": [("recipe", "Porridge of three grains", 1), ("food", "blueberries-frozen", 100)], "lunch": [("bowl", "Harbor night flask", 1)], "dinner": [("recipe", "Ferry flask stew", 2), ("food", "sourdough-bread", 50), ("food", "smoked-tofu", 80)], "snack": [("food", "apple-with-skin-raw", 182), ("food", "walnuts", 15)]}) for offset, note in ((-2, "night shift"), (0, "night shift"), (1, "off"))],
    "charts": [(0, "", {"breakfast": [("recipe", "Warm millet with plums", 1), ("food", "blueberries-raw", 80)], "lunch": [("bowl", "Chart-maker's small plate", 1), ("food", "olive-oil", 9)], "dinner": [("recipe", "Mushroom and buckwheat soup", 0.75), ("food", "sourdough-bread", 50), ("food", "white-rice-cooked", 120), ("food", "olive-oil", 9)], "snack": [("food", "apple-with-skin-raw", 149), ("food", "applesauce-unsweetened", 120)]})],
    "rower": [(0, "two sessions", {"breakfast": [("recipe", "Porridge of three grains", 1.5), ("food", "soy-milk-unsweetened", 250), ("food", "banana-raw", 118)], "lunch": [("bowl", "Boathouse eight", 1)], "dinner": [("recipe", "Soy mince with caraway and peppers", 1.5), ("food", "brown-rice-cooked", 300), ("recipe", "Kale with lemon and sesame", 1)], "snack": [("food", "pumpkin-seeds", 30), ("food", "dates-medjool", 72), ("food", "smoked-tofu", 100)]}), (1, "one session", {"lunch": [("bowl", "Boathouse eight", 1)]})],
    "museum": [(-1, "two meals", {"lunch": [("recipe", "Big greens, beans and seeds salad", 1), ("bowl", "Lamp-room salad", 0.5)], "dinner": [("recipe", "Bean and barley soup", 1.5), ("recipe", "Swiss chard, garlic, vinegar", 1)]}), (0, "two meals", {"lunch": [("bowl", "Lamp-room salad", 1), ("food", "pear-raw", 178)], "dinner": [("recipe", "Red lentil and carrot soup", 1.5), ("recipe", "Kale with lemon and sesame", 1), ("food", "brown-rice-cooked", 150)], "snack": [("food", "brazil-nuts", 5)]})],
    "boats": [(0, "yard day", {"breakfast": [("recipe", "Rye, hemp and pear breakfast", 1), ("food", "soy-milk-unsweetened", 250)], "lunch": [("bowl", "Keel and ribs", 1)], "dinner": [("recipe", "Boatyard bean stew", 1.5), ("food", "brown-rice-cooked", 150)], "snack": [("food", "dates-medjool", 48), ("food", "almonds", 30), ("food", "vitamin-b12-tablet-50-ug", 1), ("food", "iodine-drops-or-tablet-150-ug", 1)]})],
}  # fmt: skip


def _recipes(practice: Practice) -> dict[str, Recipe]:
    out = {}
    for block in (HERE / "recipes.txt").read_text(encoding="utf-8").strip().split("\n\n"):
        head, *rest = block.splitlines()
        title, role, servings, *batch = (part.strip() for part in head.removeprefix("# ").split("|"))
        lines = [line for line in rest if not line.startswith("--")]
        method = " ".join(line.removeprefix("--").strip() for line in rest if line.startswith("--"))
        out[title] = Recipe.objects.create(
            practice=practice, title=title, role=role, servings=float(servings), batch_g=float(batch[0]) if batch else None,
            text="\n".join(lines), method=method,
        )  # fmt: skip
    return out


def _weigh_ins(client: Client, key: str) -> None:
    days, first, per_week, wobble = WEIGHTS[key]
    today, skip = timezone.localdate(), LAST_WEIGHED_DAYS_AGO.get(key, 1)
    for ago in range(days, skip - 1, -2):
        done = days - ago
        kg = first + per_week * done / 7 + wobble * math.sin(done * 1.7) * math.cos(done * 0.31)
        WeighIn.objects.create(client=client, date=today - timedelta(days=ago), kg=round(kg, 1))


def load() -> None:
    """Two practices, so that one can be seen not to reach the other; the first has all the work in it."""
    practice = Practice.objects.create(name="Tern Point Wellness", town="Harrow Sound", contact="Ask at the desk above the chandlery")
    user = User.objects.create_user(NAME, password=PASSWORD, first_name="Marin", last_name="Oakes", practice=practice)
    other = Practice.objects.create(name="Gull Rock Kitchen Practice", town="Gull Rock")
    User.objects.create_user(OTHER_NAME, password=OTHER_PASSWORD, first_name="Solveig", last_name="Marr", practice=other)
    with scope(practice=other):
        Recipe.objects.create(practice=other, title="Somebody else's barley", text="1 cup pearl barley, dry", servings=2)
    with scope(practice=practice):
        recipes = _recipes(practice)
        clients = {}
        for row in CLIENTS:
            values = dict(row)
            key = values.pop("key")
            clients[key] = Client.objects.create(practice=practice, **values)
            _weigh_ins(clients[key], key)
            for nutrient, low, aim, high, kind, reason in ORDERS.get(key, ()):
                TargetOverride.objects.create(client=clients[key], key=nutrient, low=low, aim=aim, high=high, kind=kind, reason=reason, by=user)
        bowls = _bowls(practice, clients, recipes)
        _days(practice, clients, recipes, bowls)


def _bowls(practice: Practice, clients: dict[str, Client], recipes: dict[str, Recipe]) -> dict[str, Bowl]:
    bowls = {}
    for name, key, vessel, parts in BOWLS:
        bowl = bowls[name] = Bowl.objects.create(practice=practice, name=name, client=clients.get(key), vessel_ml=vessel)
        for place, (role, what, grams) in enumerate(parts):
            recipe = recipes.get(what)
            BowlPart.objects.create(
                bowl=bowl, role=role, recipe=recipe, food="" if recipe else what, grams=grams, place=place, low_g=grams * 0.92, high_g=grams * 1.08, basis="leveled measure",
            )  # fmt: skip
    return bowls


def _days(practice: Practice, clients: dict[str, Client], recipes: dict[str, Recipe], bowls: dict[str, Bowl]) -> None:
    today = timezone.localdate()
    for key, days in DAYS.items():
        for offset, note, meals in days:
            day = Day.objects.create(practice=practice, client=clients[key], date=today + timedelta(days=offset), note=note)
            for meal, entries in meals.items():
                for kind, what, amount in entries:
                    entry = DayEntry(day=day, meal=meal, amount=amount)
                    if kind == "recipe":
                        entry.recipe = recipes[what]
                    elif kind == "bowl":
                        entry.bowl = bowls[what]
                    else:
                        entry.food = what
                    entry.save()


def unsettled() -> list[str]:
    """Titles of demo recipes with lines that cannot be counted."""
    return [recipe.title for recipe in Recipe.objects.all() if facts_of(recipe).unresolved]
