"""The core built as a wheel, put into an environment that has what it declares and nothing else,
and used there by its door."""

import re
import subprocess
import sys
import venv
from importlib.metadata import distribution
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest import TestCase

ROOT = Path(__file__).resolve().parents[2]
USED = """
import sys
from nutrition import __version__, api
facts = api.reckon(api.read_recipe("Serves 2\\n1 cup cooked barley\\n1 cup cooked adzuki beans"))
assert not facts.unresolved, facts.unresolved
her = api.person(sex="female", age_years=44, height_cm=168, weight_kg=62)
assert api.targets(her)["protein_g"].low > 40
bowl = [{"id": "beans", "food": "adzuki beans cooked", "grams": 80}]
assert api.balance(bowl, who=her, meal="lunch").portions["beans"] > 0
assert api.read_label("Crackers", "30 g", {"energy_kcal": "120", "protein_g": "4"}).food
assert not {"django", "scipy", "nutrition.tests"} & set(sys.modules)
print(__version__, round(facts.serving["protein_g"].amount, 1), api.__file__)
"""


def needed(name, into=None):
    """What a distribution declares that it needs here, and what that needs."""
    into = {} if into is None else into
    for said in distribution(name).requires or ():
        requirement, _, marker = said.partition(";")
        if "extra ==" in marker or "platform" in marker or "python_" in marker:
            continue
        add(re.match(r"[\w.-]+", requirement)[0], into)
    return into


def add(name, into):
    if name.lower() not in into:
        into[name.lower()] = distribution(name)
        needed(name, into)


def put_beside(found, there):
    """Links to what some distributions installed, one for each of their first folders."""
    for one in found.values():
        for top in {Path(str(file)).parts[0] for file in one.files or ()} - {"..", "__pycache__"}:
            link = there / top
            if not link.exists():
                link.symlink_to(Path(str(one.locate_file(top))))


class Wheel(TestCase):
    def test_it_is_built_installed_and_used_by_itself(self):
        with TemporaryDirectory() as folder:
            at = Path(folder)
            build = [sys.executable, "-m", "hatchling", "build", "-t", "wheel", "-d", str(at)]
            subprocess.run(build, cwd=ROOT, check=True, capture_output=True)
            (wheel,) = at.glob("roundpantry_core-*.whl")
            env = at / "env"
            venv.create(env, with_pip=True)
            python = env / "bin" / "python"
            install = ["-m", "pip", "install", "--no-index", "--no-deps", "--quiet", str(wheel)]
            subprocess.run([python, *install], check=True, capture_output=True)
            (there,) = env.glob("lib/python*/site-packages")
            declared = re.findall(
                r"(?m)^Requires-Dist: ([\w.-]+)",
                next(there.glob("roundpantry_core-*.dist-info/METADATA")).read_text(),
            )
            found = {}
            for name in declared:
                add(name, found)
            self.assertNotIn("django", found)
            put_beside(found, there)
            ran = subprocess.run(
                [python, "-I", "-c", USED], cwd=at, capture_output=True, text=True, check=False
            )
            self.assertEqual(ran.returncode, 0, ran.stderr[-2000:])
            version, protein, path = ran.stdout.split()
            self.assertRegex(version, r"^\d+\.\d+\.\d+$")
            # half a cup of barley 1.8 g and half a cup of adzuki beans 8.7 g
            self.assertAlmostEqual(float(protein), 10.5, delta=0.5)
            self.assertIn(str(there), path)
            self.assertTrue((there / "nutrition" / "py.typed").exists())
            self.assertTrue((there / "nutrition" / "data" / "foods.csv").exists())
            self.assertFalse((there / "nutrition" / "tests").exists())
