"""The commands `targets` and `conditions`."""

import json
from io import StringIO
from tempfile import NamedTemporaryFile

from django.core.management import CommandError, call_command
from django.test import SimpleTestCase

PERSON = {
    "sex": "female",
    "age_years": 30,
    "height_cm": 165,
    "weight_kg": 60,
    "activity": "inactive",
}


def run(data, *options):
    out, err = StringIO(), StringIO()
    with NamedTemporaryFile("w", suffix=".json") as file:
        file.write(data if isinstance(data, str) else json.dumps(data))
        file.flush()
        call_command("targets", file.name, *options, stdout=out, stderr=err)
    return out.getvalue(), err.getvalue()


class Targets(SimpleTestCase):
    def data(self, **changes):
        return json.loads(run(PERSON | changes, "--json")[0])

    def test_the_shape_of_the_answer(self):
        data = self.data(
            school="strength", meals=2, goal={"kind": "muscle", "pace_kg_per_week": 0.2}
        )
        self.assertAlmostEqual(
            data["targets"]["energy_kcal"]["aim"], 584.90 - 210.30 + 943.80 + 702.60 + 220
        )
        for row in data["targets"].values():
            self.assertLessEqual({"min", "aim", "max", "unit", "source", "reason"}, set(row))
        self.assertEqual([meal["name"] for meal in data["meals"]], ["Lunch", "Dinner"])
        self.assertEqual(
            set(data["cautions"][0] if data["cautions"] else {"code"}) & {"code"}, {"code"}
        )
        self.assertIn(
            "text", self.data(conditions=["ckd_3"], school="strength")["disagreements"][0]
        )

    def test_conditions_orders_and_life_stage(self):
        data = self.data(
            conditions=["ckd_4", "diabetes"],
            orders=[{"key": "potassium_mg", "max": 2000, "by": "Dr. N"}],
        )
        self.assertAlmostEqual(data["targets"]["protein_g"]["max"], 48)
        self.assertEqual(data["targets"]["potassium_mg"]["max"], 2000)
        self.assertEqual(data["computed"]["potassium_mg"]["max"], 3000)
        self.assertEqual(self.data(conditions=["pregnant_2"])["targets"]["folate_ug"]["min"], 600)
        self.assertEqual(
            self.data(meals=3, meal_shares={"breakfast": 0.2, "lunch": 0.4, "dinner": 0.4})[
                "meals"
            ][0]["share"],
            0.2,
        )
        codes = [
            caution["code"]
            for caution in self.data(conditions=["warfarin"], school="greens_beans_seeds")[
                "cautions"
            ]
        ]
        self.assertIn("warfarin_and_greens_school", codes)

    def test_a_loss_with_its_forecast(self):
        data = self.data(
            weight_kg=80, goal={"kind": "lose", "target_weight_kg": 70, "pace_kg_per_week": 0.4}
        )
        self.assertLess(
            data["forecast"]["points"][1]["static_kg"], data["forecast"]["points"][1]["dynamic_kg"]
        )
        self.assertEqual(
            min(point["static_kg"] for point in data["forecast"]["points"]),
            70,
            "nothing is forecast beyond the goal",
        )
        self.assertEqual(
            self.data(weight_kg=80, goal={"kind": "lose", "pace_kg_per_week": -0.4})["forecast"][
                "kcal_per_day"
            ],
            data["forecast"]["kcal_per_day"],
        )

    def test_impossible_input_names_the_field(self):
        for change, field in (
            ({"age_years": -3}, "age_years"),
            ({"height_cm": 900}, "height_cm"),
            ({"weight_kg": "heavy"}, "weight_kg"),
            ({"weight_kg": True}, "weight_kg"),
            ({"weight_kg": None}, "weight_kg"),
            ({"sex": "x"}, "sex"),
            ({"school": "paleo"}, "school"),
            ({"conditions": ["ckd3"]}, "conditions"),
            ({"meals": 7}, "meals"),
            ({"meals": True}, "meals"),
            ({"goal": {"kind": "fly"}}, "goal.kind"),
            ({"goal": {"kind": "gain", "pace_kg_per_week": -1}}, "pace_kg_per_week"),
            ({"life_stage": "pregnant_1", "sex": "male"}, "life_stage"),
            ({"conditions": ["pregnant_1", "pregnant_2"]}, "conditions"),
            ({"orders": [{"key": "protein_g"}]}, "orders"),
            ({"meal_shares": {"lunch": 1}}, "meals"),
            ({"energy_formula": "measured"}, "measured_kcal"),
        ):
            with self.subTest(change):
                with self.assertRaisesRegex(CommandError, rf"^{field}\b") as refused:
                    run(PERSON | change)
                self.assertEqual(str(refused.exception).count(field), 1, "named once")
                with self.assertRaises(SystemExit):
                    run(PERSON | change, "--json")
        with self.assertRaisesRegex(CommandError, "did you mean thyroid_tablets"):
            run(PERSON | {"conditions": ["levothyroxine"]})
        with self.assertRaisesRegex(CommandError, "did you mean ckd_3"):
            run(PERSON | {"conditions": ["ckd3"]})
        for text in ("{", "[1]", '{"sex": "female", "weight_kg": NaN}'):
            with self.subTest(text), self.assertRaises(CommandError):
                run(text)
        with self.assertRaisesRegex(CommandError, "cannot be read"):
            call_command("targets", "/nowhere.json")

    def test_unusual_input_comes_with_its_caution_or_is_referred(self):
        thin = self.data(weight_kg=45.2, goal={"kind": "lose"})
        self.assertIn("underweight", [caution["code"] for caution in thin["cautions"]])
        self.assertIn(
            "no loss is planned at or under BMI 18.5", thin["targets"]["energy_kcal"]["reason"]
        )
        young = self.data(age_years=16)
        self.assertEqual(young["targets"], {})
        self.assertIn("age_under_18", [caution["code"] for caution in young["cautions"]])
        self.assertIn("pediatric dietitian", young["cautions"][0]["refer_to"])

    def test_as_text(self):
        text, err = run(
            PERSON
            | {
                "conditions": ["ckd_4"],
                "school": "strength",
                "shoe_size": 42,
                "goal": {"kind": "lose", "target_weight_kg": 55},
            }
        )
        for part in (
            "STOP AND ASK",
            "THEY DISAGREE",
            "Protein",
            "Turn to:",
            "Breakfast",
            "actual weight 60 kg",
            "7700 kcal per kg",
        ):
            self.assertIn(part, text)
        self.assertIn("shoe_size", err)


class Conditions(SimpleTestCase):
    def test_all_are_listed(self):
        out = StringIO()
        call_command("conditions", "--json", stdout=out)
        codes = [row["code"] for row in json.loads(out.getvalue())]
        for code in (
            "ckd_1",
            "ckd_5",
            "dialysis",
            "diabetes",
            "hypertension",
            "warfarin",
            "maoi",
            "metformin",
            "over_65",
            "pregnant_2",
            "texture_soft",
        ):
            self.assertIn(code, codes)
        plain = StringIO()
        call_command("conditions", stdout=plain)
        for heading in ("Conditions:", "Medicines:", "History:", "Texture:", "Life stage:"):
            self.assertIn(heading, plain.getvalue())
