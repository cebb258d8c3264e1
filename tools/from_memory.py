"""Write docs/from-memory.md: what was written down from memory and wants a second reader.

python tools/from_memory.py [--check]
"""

from __future__ import annotations

import argparse
import re
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
PAGE = ROOT / "docs" / "from-memory.md"
WORDS = re.compile(r"from memory", re.I)
HEAD = """# Written down from memory

What was written down from memory, by file: rows of data, and lines of code or of its documentation.
It is used, marked where it stands, and wants a second reader with the published source, who takes
the mark away. Made by `tools/from_memory.py`.

"""


def places(path: Path) -> list[int]:
    """The lines of a file that say so, from 1."""
    lines = path.read_text(encoding="utf-8").splitlines()
    return [n for n, line in enumerate(lines, 1) if WORDS.search(line)]


def page() -> str:
    rows = {
        "Data": sorted((ROOT / "nutrition" / "data").glob("*.*")),
        "The core": sorted((ROOT / "nutrition").rglob("*.py")),
        "What is drawn": sorted((ROOT / "webkit").rglob("*.py")),
        "What makes the data": sorted((ROOT / "tools").glob("*.*")),
    }
    out = [HEAD]
    for heading, paths in rows.items():
        out.append(f"## {heading}\n\n| file | marked |\n|---|---:|\n")
        for path in paths:
            if path.name in (Path(__file__).name, "README.md") or "tests" in path.parts:
                continue
            found = places(path)
            if found:
                name = path.relative_to(ROOT).as_posix()
                out.append(f"| `{name}` | {len(found)} |\n")
        out.append("\n")
    return "".join(out).rstrip() + "\n"


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--check", action="store_true", help="say whether the page is current")
    made = page()
    if parser.parse_args().check:
        current = PAGE.exists() and PAGE.read_text(encoding="utf-8") == made
        if not current:
            print("docs/from-memory.md is not current: python tools/from_memory.py")
        return 0 if current else 1
    PAGE.write_text(made, encoding="utf-8")
    return 0


if __name__ == "__main__":
    sys.exit(main())
