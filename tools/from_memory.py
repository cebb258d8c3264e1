"""Write docs/from-memory.md: what was written down from memory and wants a second reader.

python tools/from_memory.py [--check]
"""

from __future__ import annotations

import re
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(ROOT))

from tools.made_pages import written_or_checked  # noqa: E402

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


if __name__ == "__main__":
    sys.exit(written_or_checked(__doc__, {PAGE: page()}, "from_memory"))
