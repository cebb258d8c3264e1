"""What a serving, a bowl, a day tells: absorbed phosphorus, ratios, load, habits, variety,
plate."""

from unittest import TestCase

from nutrition.composition.amounts import amount_of
from nutrition.composition.food_classes import classes_of, food_classes
from nutrition.composition.foods import food_table
from nutrition.composition.ingredient import Ingredient
from nutrition.composition.nutrients import SUMS
from nutrition.composition.profile import Profile
from nutrition.insight import indices
from nutrition.insight.glycemic import glycemic_index, glycemic_load, load_band
from nutrition.insight.habits import tick
from nutrition.insight.summary import tell
from nutrition.insight.variety import colors_in, distinct_plants, plate_shares, vegetable_half
from nutrition.labels.own_food import TAGGED
from nutrition.targets.schools import schools

FOODS = food_table()


def parts(**grams):
    return [Ingredient(FOODS[slug.replace("_", "-")], amount) for slug, amount in grams.items()]


def profile_of(ingredients):
    return Profile.total(part.food.profile(part.grams) for part in ingredients)


class Phosphorus(TestCase):
    def test_plants_about_half_additives_nearly_all(self):
        """Kalantar-Zadeh et al. (2010), from memory."""
        beans = indices.absorbed_phosphorus([(FOODS["white-beans-cooked"], 100)])
        self.assertAlmostEqual(beans.amount, beans.total / 2)
        powder = indices.absorbed_phosphorus(
            [(FOODS["baking-powder-low-sodium"], 5), (FOODS["egg-replacer-powder"], 5)]
        )
        self.assertGreater(powder.low, 0.89 * powder.total)
        self.assertEqual(powder.known, 0.5)
        egg = indices.absorbed_phosphorus([(FOODS["egg-boiled"], 100)])
        self.assertGreater(egg.amount, beans.amount * egg.total / beans.total)

    def test_what_may_hold_additives_reaches_higher(self):
        milk = indices.absorbed_phosphorus([(FOODS["soy-milk-unsweetened"], 250)])
        self.assertAlmostEqual(milk.amount, milk.total / 2)
        self.assertAlmostEqual(milk.high, milk.total)


class Ratios(TestCase):
    def test_phytate_to_zinc_is_molar(self):
        """660 mg of phytate are a millimole, 65.4 mg of zinc as well: 1000 mg over 10 mg is 9.9."""
        profile = profile_of(parts(lentils_cooked=100))
        found = indices.phytate_zinc_ratio(profile)
        self.assertAlmostEqual(
            found.value, profile["phytate_mg"].amount / profile["zinc_mg"].amount * 65.38 / 660.04
        )
        self.assertEqual(
            [indices.zinc_uptake_words(value) for value in (3, 9.9, 20)],
            ["good zinc uptake", "moderate zinc uptake", "poor zinc uptake"],
        )
        self.assertIsNone(indices.phytate_zinc_ratio(profile_of(parts(olive_oil=10))))

    def test_omega(self):
        flax, sunflower = (
            indices.omega_ratio(FOODS[slug].profile(30)) for slug in ("flaxseed", "sunflower-oil")
        )
        self.assertLess(flax.value, 0.5)
        self.assertTrue(sunflower is None or sunflower.value > 20)

    def test_sums_and_indices_have_amounts_with_ranges(self):
        tofu = FOODS["tofu-firm"].profile(150, 140, 160)
        for key, two in SUMS.items():
            self.assertAlmostEqual(
                amount_of(tofu, key).amount, sum(tofu[part].amount for part in two)
            )
        acid = amount_of(tofu, "pral_meq")
        self.assertAlmostEqual(acid.amount, indices.acid_load(tofu).value)
        self.assertTrue(acid.low < acid.amount < acid.high)
        kale = amount_of(FOODS["kale-raw"].profile(100), "pral_meq")
        self.assertLess(kale.low, 0)
        self.assertAlmostEqual(amount_of(tofu, "kcal_per_gram").amount, indices.kcal_per_gram(tofu))


class Load(TestCase):
    def test_a_load_worked_by_hand(self):
        """Lentils, cooked, 100 g: 20.1 g carbohydrate, 7.9 g fiber, index 32."""
        food = FOODS["lentils-cooked"]
        available = food.per_100_g("carbohydrate_g") - food.per_100_g("fiber_g")
        found = glycemic_load([(food, 100)])
        self.assertAlmostEqual(found.load, 0.32 * available)
        self.assertEqual(found.known, 1.0)
        self.assertEqual([load_band(value) for value in (9, 10, 25)], ["low", "medium", "high"])

    def test_what_is_not_known_is_not_zero(self):
        found = glycemic_load([(FOODS["lentils-cooked"], 100), (FOODS["teff-cooked"], 100)])
        self.assertLess(found.known, 0.6)
        self.assertIsNone(glycemic_index("teff-cooked"))
        self.assertIsNone(glycemic_load([(FOODS["olive-oil"], 10)]))


class Variety(TestCase):
    def test_plants_colors_and_half(self):
        plate = parts(
            kale_raw=60,
            bell_pepper_red_raw=60,
            carrots_raw=50,
            carrots_cooked=50,
            millet_cooked=150,
            salt=2,
            cumin_seeds=1,
        )
        self.assertEqual(colors_in(plate), ["green", "red", "orange", "yellow"])
        plants = distinct_plants(plate)
        self.assertEqual(sum("Carrots" in name for name in plants), 1)
        self.assertFalse(any("Salt" in name for name in plants))
        self.assertEqual(len(plants), 5)
        half = vegetable_half(plate)
        self.assertTrue(0.4 < half < 0.9)
        self.assertIsNone(vegetable_half([]))

    def test_a_schools_plate(self):
        shares = plate_shares(
            parts(kale_raw=100, lentils_cooked=150, brown_rice_cooked=150),
            schools()["balanced_plate"].plate,
        )
        self.assertAlmostEqual(sum(share for _part, share in shares), 1.0)
        self.assertTrue(all(share > 0.1 for _part, share in shares))

    def test_habits(self):
        habits = schools()["greens_beans_seeds"].habits
        met = {
            row.habit.name: row.met
            for row in tick(
                habits,
                parts(
                    kale_raw=150,
                    lentils_dry=40,
                    onion_raw=30,
                    mushrooms_white_raw=50,
                    blueberries_raw=80,
                ),
            )
        }
        self.assertEqual([name for name, done in met.items() if not done], ["A nut", "A seed"])
        oil = [
            row
            for row in tick(schools()["light_starchy"].habits, parts(olive_oil=5))
            if row.habit.name == "No oil"
        ][0]
        self.assertFalse(oil.met)

    def test_all_at_once(self):
        plate = parts(kale_raw=60, tofu_firm=150, brown_rice_cooked=150)
        found = tell(profile_of(plate), plate, schools()["strength"])
        self.assertEqual((found.band, found.limiting), ("low", "lysine"))
        self.assertEqual(len(found.plate), 3)
        nothing = tell(Profile.empty(), [])
        self.assertEqual(
            (nothing.density, nothing.amino, nothing.band, nothing.limiting), (None, None, "", "")
        )


class Classes(TestCase):
    def test_none_is_empty_and_a_few_are_right(self):
        for name, kind in food_classes().items():
            with self.subTest(name):
                of_packages = not kind.groups and not kind.slugs and kind.tags <= set(TAGGED)
                self.assertTrue(of_packages or any(kind.holds(food) for food in FOODS))
        for slug, name, member in (
            ("kidney-beans-cooked", "uncooked kidney beans", False),
            ("kidney-beans-dry", "uncooked kidney beans", True),
            ("brussels-sprouts-raw", "raw sprouts", False),
            ("tamarind-paste", "strong tyramine", False),
            ("avocado-oil", "avocado", False),
            ("walnuts", "nuts", True),
            ("tahini", "seeds", True),
            ("soba-noodles-cooked", "flour products", False),
        ):
            with self.subTest(slug):
                self.assertEqual(name in classes_of(FOODS[slug]), member)
