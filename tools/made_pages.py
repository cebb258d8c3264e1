"""Pages that are made of the code: written, or held against what they would be."""

import argparse
from collections.abc import Mapping
from pathlib import Path


def written_or_checked(about: str | None, pages: Mapping[Path, str], tool: str) -> int:
    """Write the pages, or with --check say which are not current; the status to end with. `about`
    is the tool's own docstring."""
    parser = argparse.ArgumentParser(description=about)
    parser.add_argument("--check", action="store_true", help="say whether they are current")
    if not parser.parse_args().check:
        for path, text in pages.items():
            path.parent.mkdir(exist_ok=True)
            path.write_text(text, encoding="utf-8")
        return 0
    stale = [
        path.name
        for path, text in pages.items()
        if not path.exists() or path.read_text(encoding="utf-8") != text
    ]
    if stale:
        print(f"Not current: {', '.join(stale)}. Run: python tools/{tool}.py")
    return 1 if stale else 0
