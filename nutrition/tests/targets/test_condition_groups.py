"""Conditions are in a group in their data, and a list of clients is filtered by it."""

from unittest import TestCase

from nutrition.targets.conditions import GROUPS, conditions, groups_of

# by hand, from the names of the conditions
IN_GROUP = {
    "kidney": {
        *("ckd_1", "ckd_2", "ckd_3", "ckd_3a", "ckd_3b", "ckd_4", "ckd_5"),
        *("dialysis", "hemodialysis", "peritoneal_dialysis", "kidney_transplant"),
    },
    "diabetes": {"diabetes", "gestational_diabetes", "insulin", "sulfonylurea"},
    "heart": {"hypertension", "heart_failure", "heart_rhythm", "high_cholesterol", "warfarin"},
}


class Groups(TestCase):
    def test_each_in_its_own(self):
        found = {
            group: {code for code, one in conditions().items() if one.group == group}
            for group in GROUPS
        }
        self.assertEqual(found, IN_GROUP)

    def test_those_of_a_person_in_their_order(self):
        self.assertEqual(groups_of(["warfarin", "ckd_3b", "gout"]), ["kidney", "heart"])
        self.assertEqual(groups_of(["kidney_stones"]), [])
        self.assertEqual(groups_of([]), [])
