"""The door to the core: what it offers, that each name says all that a stranger needs, and that its
examples are true."""

import doctest
import inspect
import unittest

from nutrition import api

PARTS = ("Returns", "Examples")


class Api(unittest.TestCase):
    def test_the_examples_are_true(self):
        found = doctest.testmod(api)
        self.assertEqual(found.failed, 0)
        self.assertGreaterEqual(found.attempted, 25)

    def test_every_function_says_what_it_takes_gives_and_refuses(self):
        functions = [getattr(api, name) for name in api.__all__]
        functions = [one for one in functions if inspect.isfunction(one)]
        self.assertEqual(len(functions), 13)
        for function in functions:
            text = inspect.getdoc(function)
            takes = inspect.signature(function).parameters
            with self.subTest(function.__name__):
                for part in (*PARTS, *(["Parameters"] if takes else [])):
                    self.assertIn(f"\n{part}\n{'-' * len(part)}\n", text)
                for name in takes:
                    self.assertRegex(text, rf"(?m)^(\*\*)?{name}( :|$)")

    def test_all_of_it_is_there(self):
        self.assertEqual(sorted(api.__all__), list(api.__all__))
        self.assertLessEqual(len(api.__all__), 25)

    def test_a_file_is_not_opened(self):
        who = api.person(sex="female", age_years=44, height_cm=168, weight_kg=62)
        with self.assertRaises(api.CoreError) as refused:
            api.balance([{"id": "soup", "recipe": "soup.txt"}], who=who)
        self.assertEqual(refused.exception.field, "parts[0].recipe")
