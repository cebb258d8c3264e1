"""Templates laid out: only white space that a browser does not tell apart moves."""

from unittest import TestCase

from tools.templates import ROOT, laid_out

WRITTEN = """{% extends "base.html" %}
{% block main %}<ul class="lined"
  id="all">{% for one in rows %}<li>{{ one }}</li>{% empty %}
  <li class="quiet">None,
  yet.</li>{% endfor %}</ul>
<p>Pressed <a
  href="/x/">here</a>, or<button>there</button>{% if more %}, and more{% endif %}.</p>
<pre>
  as   it is</pre>{% endblock %}
"""
LAID = """{% extends "base.html" %}
{% block main %}
  <ul class="lined" id="all">
    {% for one in rows %}
      <li>{{ one }}</li>
    {% empty %}
      <li class="quiet">None, yet.</li>
    {% endfor %}
  </ul>
  <p>Pressed <a href="/x/">here</a>, or<button>there</button>{% if more %}, and more{% endif %}.</p>
  <pre>
  as   it is</pre>
{% endblock main %}
"""


class LaidOut(TestCase):
    def test_a_tag_a_line_a_block_a_line_ends_named(self):
        self.assertEqual(laid_out(WRITTEN), LAID)
        self.assertEqual(laid_out(LAID), LAID)

    def test_no_space_comes_where_a_browser_would_show_it(self):
        words = "word, " * 40
        text = f"<p>{words}<b>bold</b>{{% if x %}}<i>{words}</i>{{% endif %}}.</p>"
        told = laid_out(text)
        self.assertIn("<b>bold</b>{% if x %}<i>word,", told)
        self.assertIn("</i>{% endif %}.", told)
        self.assertEqual(told.split(), laid_out(told).split())

    def test_what_does_not_nest_is_left_as_it_is(self):
        text = "{% if x %}<div>{% endif %}<p>in it</p>{% if x %}</div>{% endif %}\n"
        self.assertEqual("".join(laid_out(text).split()), "".join(text.split()))

    def test_all_of_ours_are(self):
        paths = sorted(ROOT.glob("*/templates/**/*.html"))
        self.assertGreater(len(paths), 100)
        other = [str(path) for path in paths if laid_out(path.read_text()) != path.read_text()]
        self.assertEqual(other, [])
