"""Later stages answer and fill what earlier ones leave open; what is found once while a page is
read."""

from django.template import Context, Engine
from django.test import SimpleTestCase

from webkit.extension_points import Place, Question
from webkit.page_cache import once, reading


class Questions(SimpleTestCase):
    def test_answers_come_in_the_order_in_which_they_were_given(self):
        question = Question()
        question.answered_by(lambda of: f"a {of}")
        question.answered_by(lambda of: "")
        question.answered_by(lambda of: f"b {of}")
        self.assertEqual(list(question.ask("gull")), ["a gull", "", "b gull"])
        self.assertEqual(question.first("gull"), "a gull")

    def test_some_are_of_one_kind_of_thing_only(self):
        question = Question()
        question.answered_by(lambda of: "a number", int, float)
        question.answered_by(lambda of: "a word", str)
        self.assertEqual(list(question.ask(7)), ["a number"])
        self.assertEqual(list(question.ask("seven")), ["a word"])
        self.assertIsNone(question.first(None))

    def test_the_same_answer_given_twice_is_one(self):
        question = Question()

        def answer():
            return 1

        question.answered_by(answer)
        question.answered_by(answer)
        self.assertEqual(list(question.ask()), [1])


class Places(SimpleTestCase):
    def render(self, template, **context):
        loaders = [
            (
                "django.template.loaders.locmem.Loader",
                {"one.html": "one {{ name }}.", "two.html": "two {{ name }} {{ more }}."},
            )
        ]
        engine = Engine(loaders=loaders, libraries={"place_tags": "webkit.templatetags.place_tags"})
        return engine.from_string("{% load place_tags %}" + template).render(Context(context))

    def test_filled_in_the_order_that_each_says_with_what_the_page_has_and_more(self):
        place = Place("test-place")
        place.filled_by("two.html", 2, lambda page: {"more": page["name"].upper()})
        place.filled_by("one.html", 1)
        place.filled_by("one.html", 3)
        shown = self.render('{% place "test-place" %}{{ more }}', name="<gull>")
        self.assertEqual(shown, "one &lt;gull&gt;.two &lt;gull&gt; &lt;GULL&gt;.")

    def test_a_place_that_is_not_there_is_an_error(self):
        with self.assertRaises(KeyError):
            self.render('{% place "nowhere" %}')


class Once(SimpleTestCase):
    def test_found_once_while_a_page_is_read_and_anew_otherwise(self):
        found = []

        def find():
            found.append(1)
            return len(found)

        self.assertEqual([once("a", find), once("a", find)], [1, 2])
        with reading():
            self.assertEqual([once("a", find), once("a", find), once("b", find)], [3, 3, 4])
            with reading():
                self.assertEqual(once("a", find), 5)
            self.assertEqual(once("a", find), 3)
        self.assertEqual(once("a", find), 6)
