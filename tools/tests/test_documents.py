"""What the documents name is there: files, commands, links; what is made of the code is current."""

import re
import subprocess
import sys
from functools import cache
from pathlib import Path
from unittest import TestCase

ROOT = Path(__file__).resolve().parents[2]
ELSEWHERE = {".venv", "node_modules", ".git", "var", "__pycache__"}
README_LINES = 120
# Said of what is no more, on purpose.
GONE: frozenset[str] = frozenset()


@cache
def paths():
    found = [path for path in ROOT.rglob("*") if ELSEWHERE.isdisjoint(path.parts)]
    return ["/" + path.relative_to(ROOT).as_posix() for path in found]


def documents():
    return [
        *(path for path in ROOT.glob("*.md") if path.name != "CHANGELOG.md"),
        *(ROOT / "docs").rglob("*.md"),
        *(ROOT / "nutrition" / "data").glob("*.md"),
        *(ROOT / "tools").glob("*.md"),
    ]


class Documents(TestCase):
    def test_every_file_that_is_named_is_there(self):
        missing = []
        for path in documents():
            text = path.read_text(encoding="utf-8")
            for name in re.findall(r"`([\w./-]+\.(?:py|toml|csv|tsv|md|js|json|html|txt))`", text):
                if name not in GONE and not any(one.endswith(f"/{name}") for one in paths()):
                    missing.append(f"{path.relative_to(ROOT)}: {name}")
        self.assertEqual(missing, [])

    def test_every_link_leads_somewhere(self):
        missing = []
        for path in documents():
            text = path.read_text(encoding="utf-8")
            for to in re.findall(r"\]\(([^)#:]+)(?:#[^)]*)?\)", text):
                if not (path.parent / to).exists():
                    missing.append(f"{path.relative_to(ROOT)}: {to}")
        self.assertEqual(missing, [])

    def test_every_command_of_bin_is_there(self):
        for path in documents():
            for name in re.findall(r"`bin/([a-z_]+)", path.read_text(encoding="utf-8")):
                self.assertTrue((ROOT / "bin" / name).exists(), f"{path}: bin/{name}")

    def test_the_readme_is_a_page(self):
        lines = (ROOT / "README.md").read_text(encoding="utf-8").splitlines()
        self.assertLess(len(lines), README_LINES)
        self.assertEqual(sum(line.startswith("| [![") for line in lines), 6)

    def test_every_module_says_in_a_line_what_it_is(self):
        rows = (ROOT / "docs" / "modules.md").read_text(encoding="utf-8").splitlines()
        self.assertGreater(len(rows), 500)
        self.assertEqual([row for row in rows if row.endswith("|  |")], [])

    def test_what_is_made_of_the_code_is_current(self):
        for tool in ("module_index.py", "from_memory.py", "schemas.py"):
            run = [sys.executable, f"tools/{tool}", "--check"]
            with self.subTest(tool):
                ran = subprocess.run(run, cwd=ROOT, capture_output=True, text=True, check=False)
                self.assertEqual(ran.returncode, 0, ran.stdout + ran.stderr)
