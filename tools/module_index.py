"""Write docs/modules.md: every module in one line, the first sentence of its own docstring."""

import ast
import sys
import tomllib
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))

from tools.made_pages import written_or_checked  # noqa: E402

PAGE = ROOT / "docs" / "modules.md"
HEAD = """# Every module in one line

Made of the modules' own docstrings by `tools/module_index.py`; `.ci/run` checks that it is
current. What a package is for stands above its modules.
"""
ELSEWHERE = {".venv", "node_modules", ".git", "var", "migrations", "tests", "static", "__pycache__"}


def order() -> list[str]:
    """The packages from the ground up: the core, the layers of the import rules, the rest."""
    rules = tomllib.loads((ROOT / "pyproject.toml").read_text(encoding="utf-8"))
    contracts = rules["tool"]["importlinter"]["contracts"]
    layers = next(one["layers"] for one in contracts if "webkit" in one.get("layers", ()))
    return ["nutrition", *reversed(layers), "e2e", "tools"]


def sentence(path: Path) -> str:
    """The first sentence of a module's docstring; empty for one without."""
    text = ast.get_docstring(ast.parse(path.read_text(encoding="utf-8"))) or ""
    line = " ".join(text.split("\n\n")[0].split())
    return line.replace("|", "\\|").replace(" -> ", " → ")


def folders(top: Path) -> list[Path]:
    """A package and what is in it that is one, without tests and migrations."""
    out = [top]
    for path in sorted(top.rglob("*")):
        if path.is_dir() and ELSEWHERE.isdisjoint(path.relative_to(ROOT).parts):
            out += [path] if any(path.glob("*.py")) else []
    return out


def page() -> str:
    out = [HEAD]
    for name in order():
        for folder in folders(ROOT / name):
            modules = [path for path in sorted(folder.glob("*.py")) if path.stem != "__init__"]
            if not modules:
                continue
            said = folder / "__init__.py"
            where = folder.relative_to(ROOT).as_posix()
            out.append(f"\n## `{where}/`\n\n")
            if said.exists() and sentence(said):
                out.append(f"{sentence(said)}\n\n")
            out.append("| module | |\n|---|---|\n")
            out += [f"| `{path.name}` | {sentence(path)} |\n" for path in modules]
    return "".join(out)


if __name__ == "__main__":
    sys.exit(written_or_checked(__doc__, {PAGE: page()}, "module_index"))
