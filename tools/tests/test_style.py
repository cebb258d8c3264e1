"""What is held beside the linters: how the code, the templates and the scripts are written."""

import ast
import re
import tomllib
from functools import cache
from pathlib import Path
from unittest import TestCase

ROOT = Path(__file__).resolve().parents[2]
ELSEWHERE = {".venv", "node_modules", ".git", "var", "vendor", "migrations"}
MOST_POSITIONAL, LONGEST_TEMPLATE_LINE = 4, 120
LONGEST_FILE, LONGEST_FUNCTION, REASON = 400, 60, "# Whole: "
# Participles, verbs and adverbs: as the name of a module they say nothing of what it is about.
NO_NAMES_OF_MODULES = frozenset(
    """
    added afterward agreed always asked attends because beside bought bringing built by_eye carried
    chosen counted derived doubtful done drawn eaten fed filled found given gone had happened held
    helping inside kept known laid_over later liked logged made measured named once over_it owned
    pasted planned plausible printed proposed put read reckoned regional reported said seen sensible
    servable shown sold stands stored sudden taken told together typed usual wanted watched weighed
    whose without worn would_help written
    """.split()  # noqa: SIM905
)


@cache
def files(pattern):
    found = [path for path in ROOT.rglob(pattern) if ELSEWHERE.isdisjoint(path.parts)]
    return [(path.relative_to(ROOT).as_posix(), path.read_text(encoding="utf-8")) for path in found]


def dataclass_of(node):
    for decorator in node.decorator_list:
        called = decorator.func if isinstance(decorator, ast.Call) else decorator
        if getattr(called, "id", "") == "dataclass":
            return decorator
    return None


class Code(TestCase):
    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.modules = [(name, ast.parse(text)) for name, text in files("*.py")]

    def setUp(self):
        self.assertGreater(len(self.modules), 300)

    def test_the_formatter_alone_lays_out(self):
        word = "fmt: " + "skip"
        self.assertEqual([name for name, text in files("*.py") if word in text], [])

    def test_a_package_of_the_core_has_no_face_of_its_own(self):
        found = [
            name
            for name, tree in self.modules
            if re.fullmatch(r"nutrition/\w+/__init__\.py", name)
            if "/tests/" not in name and len(tree.body) != 1
        ]
        self.assertEqual(found, [])

    def test_what_is_long_says_why_it_is_whole(self):
        found = []
        for name, text in files("*.py"):
            if "/tests/" in name:
                continue
            lines = text.splitlines()
            if len(lines) > LONGEST_FILE and not any(one.startswith(REASON) for one in lines):
                found.append(name)
            for node in ast.walk(ast.parse(text)):
                if isinstance(node, ast.FunctionDef):
                    own = lines[node.lineno - 1 : node.end_lineno]
                    if len(own) > LONGEST_FUNCTION and not any(REASON in one for one in own):
                        found.append(f"{name}: {node.name}")
        self.assertEqual(found, [])

    def test_modules_are_named_by_nouns(self):
        found = [name for name, _tree in self.modules if Path(name).stem in NO_NAMES_OF_MODULES]
        self.assertEqual(found, [])

    def test_larger_dataclasses_are_keyword_only(self):
        found = []
        for name, tree in self.modules:
            for node in ast.walk(tree):
                made = dataclass_of(node) if isinstance(node, ast.ClassDef) else None
                if made is None:
                    continue
                fields = [one for one in node.body if isinstance(one, ast.AnnAssign)]
                marked = any(getattr(one.target, "id", "") == "_" for one in fields)
                only = isinstance(made, ast.Call) and any(
                    word.arg == "kw_only" for word in made.keywords
                )
                if len(fields) > MOST_POSITIONAL and not only and not marked:
                    found.append(f"{name}: {node.name}")
        self.assertEqual(found, [])

    def test_no_function_returns_a_thing_or_a_string(self):
        found = []
        for name, tree in self.modules:
            for node in ast.walk(tree):
                if isinstance(node, ast.FunctionDef) and isinstance(node.returns, ast.BinOp):
                    kinds = set(ast.unparse(node.returns).split(" | "))
                    if "str" in kinds and kinds - {"str", "None"}:
                        found.append(f"{name}: {node.name}")
        self.assertEqual(found, [])

    def test_every_package_of_the_core_says_what_it_is_for(self):
        for path in (ROOT / "nutrition").iterdir():
            if path.is_dir() and (path / "__init__.py").exists() and path.name != "tests":
                with self.subTest(path.name):
                    tree = ast.parse((path / "__init__.py").read_text(encoding="utf-8"))
                    self.assertGreater(len(ast.get_docstring(tree) or ""), 30)

    def test_core_errors_have_one_base(self):
        builtin = {"ValueError", "KeyError", "TypeError", "Exception", "RuntimeError"}
        found = [
            f"{name}: {node.name}"
            for name, tree in self.modules
            if name.startswith("nutrition/") and "/tests/" not in name
            for node in ast.walk(tree)
            if isinstance(node, ast.ClassDef)
            and builtin & (bases := {getattr(base, "id", "") for base in node.bases})
            and "CoreError" not in bases
        ]
        self.assertEqual(found, ["nutrition/composition/errors.py: CoreError"])


class Web(TestCase):
    def test_views_import_no_views_and_forms_stand_in_forms(self):
        found = []
        for name, text in files("*.py"):
            room, _slash, file = name.rpartition("/")
            if "tests" in room or file == "urls.py":
                continue
            if file.endswith("views.py") and re.search(r"^from \S*views import", text, re.M):
                found.append(f"{name} imports views")
            if file != "forms.py" and re.search(r"^class \w+\(\S*Form\):", text, re.M):
                found.append(f"{name} has a form")
        self.assertEqual(found, [])

    def test_nothing_is_asked_of_a_later_stage_by_a_string(self):
        """By import-linter's own order of the stages."""
        layers = tomllib.loads((ROOT / "pyproject.toml").read_text())["tool"]["importlinter"]
        stages = next(
            one["layers"] for one in layers["contracts"] if "webkit" in one.get("layers", ())
        )
        floor = {
            room: -at
            for at, layer in enumerate(stages)
            for room in layer.replace(" ", "").split("|")
        }
        # the addresses of the practice itself have no name before them
        named = re.compile(
            r"""["'](\w+):[a-z-]+["']|get_model\(["'](\w+)|include ["'](\w+)/|^from (\w+)""", re.M
        )
        found = []
        for kind in ("*.py", "*.html"):
            for name, text in files(kind):
                room = name.partition("/")[0]
                if room not in floor or "tests" in name:
                    continue
                for match in named.finditer(text):
                    other = next(one for one in match.groups() if one)
                    if floor.get(other, -99) > floor[room]:
                        found.append(f"{name}: {match[0]}")
        self.assertEqual(found, [])


class Pages(TestCase):
    def test_no_name_is_broken_over_a_line(self):
        """What is said of a control is said with the spaces between its words, no more; the example
        in a paper of many lines alone has lines."""
        broken = re.compile(r'\b(?:aria-label|title|alt|placeholder)="[^"]*\n')
        papers = re.compile(r"<textarea[^>]*>")
        found = [
            f"{name}: {match[0]}"
            for name, text in files("*.html")
            for match in broken.finditer(papers.sub("", text))
        ]
        self.assertEqual(found, [])

    def test_no_threshold_in_a_template(self):
        """A sign may be asked for, and whether a share is whole; where a line is drawn is a
        rule."""
        drawn = re.compile(r"\{% (?:el)?if [^%]*[<>]=? ?(?!(?:0|1)\b(?!\.))[\d.]+")
        found = [
            f"{name}: {match[0]}"
            for name, text in files("*.html")
            for match in drawn.finditer(text)
        ]
        self.assertEqual(found, [])

    def test_no_rule_of_the_job_stands_in_the_web(self):
        """What is common practice, or from memory, stands in the core, where the list of it looks
        and its own room tests it."""
        marked = re.compile(r"common\s+(?:#\s+)?practice|from\s+(?:#\s+)?memory", re.I)
        found = [
            name
            for name, text in files("*.py")
            if name.partition("/")[0] not in ("nutrition", "webkit", "tools", "demo")
            and "tests" not in name
            if marked.search(text)
        ]
        self.assertEqual(found, [])

    def test_lines_of_scripts(self):
        found = [
            f"{name}:{number}"
            for name, text in files("*.js")
            if "/vendor/" not in name
            for number, line in enumerate(text.splitlines(), 1)
            if len(line) > 100
        ]
        self.assertEqual(found, [])

    def test_no_address_in_a_script(self):
        written = re.compile(r"""["'`]/[a-z]""")
        scripts = [row for row in files("*.js") if row[0].startswith("webkit/static/js/")]
        self.assertGreater(len(scripts), 8)
        self.assertEqual([name for name, text in scripts if written.search(text)], [])
