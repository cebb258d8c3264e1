"""Change one number or one comparison of the core at a time, and run the tests of its room: what no
test notices is not tested. Survivors are listed; tools/mutants.toml says of some why they do not
matter."""

from __future__ import annotations

import argparse
import ast
import importlib
import importlib.abc
import importlib.machinery
import importlib.util
import os
import random
import re
import select
import signal
import sys
import time
import tomllib
import unittest
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from pathlib import Path
from types import CodeType, ModuleType
from typing import Any

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))
ROOMS = (
    "targets",
    "safety",
    "follow_up",
    "prep",
    "prep/steps",
    "prep/timeline",
    "planning",
    "labels",
    "written",
)
# The tables that hold thresholds, and whose room's tests hold them.
TABLES = {
    "cautions": "safety",
    "conditions": "targets",
    "blood_values": "targets",
    "keeping": "prep",
}
REASONS = Path(__file__).with_suffix(".toml")
FIFTH = 1.2
# A change of a fifth of less than this is a change of nothing: tolerances of arithmetic.
LEAST = 1e-6
LONGEST_SECONDS = 300.0
# Against a number the edge itself is moved; between two things that vary the comparison is turned.
MOVED = {ast.Lt: "<=", ast.LtE: "<", ast.Gt: ">=", ast.GtE: ">"}
TURNED = {ast.Lt: ">=", ast.LtE: ">", ast.Gt: "<=", ast.GtE: "<"}
SIGNS = {ast.Lt: "<", ast.LtE: "<=", ast.Gt: ">", ast.GtE: ">="}
# Slow to import, and the same for every mutant.
COMMON = ("hypothesis", "lxml.etree", "numpy", "ortools.sat.python.cp_model", "pint", "pydantic")
_NAME = re.compile(r"^_?[A-Z][A-Z0-9_]*$")
_NUMBER = re.compile(r"(?<![\w.\-\"])\d+(?:\.\d+)?(?![\w.])")


@dataclass(frozen=True, kw_only=True)
class Mutant:
    """One change of a file: at an offset, so much text by other; and whose tests hold it."""

    path: Path
    room: str
    at: int
    before: str
    after: str

    @property
    def line(self) -> str:
        text = self.path.read_text(encoding="utf-8")
        start = text.rfind("\n", 0, self.at) + 1
        return text[start:].split("\n", 1)[0].strip()

    @property
    def where(self) -> str:
        text = self.path.read_text(encoding="utf-8")
        return f"{self.path.relative_to(ROOT)}:{text.count(chr(10), 0, self.at) + 1}"

    @property
    def key(self) -> str:
        """What a reason is kept under: it stays when lines move."""
        return f"{self.path.stem}: {self.line}: {self.before} -> {self.after}"

    def mutated(self) -> str:
        text = self.path.read_text(encoding="utf-8")
        return text[: self.at] + self.after + text[self.at + len(self.before) :]


def changed(number: str) -> str | None:
    """A number as written, a fifth more; None where that is no change."""
    value = ast.literal_eval(number)
    if isinstance(value, int):
        return None if not value else str(max(round(value * FIFTH), value + 1))
    return None if abs(value) < LEAST else f"{value * FIFTH:.6g}"


def _offsets(text: str) -> list[int]:
    out = [0]
    for line in text.splitlines(keepends=True):
        out.append(out[-1] + len(line.encode()))
    return out


def _threshold(node: ast.expr) -> bool:
    """Whether it is a number other than nothing, or a named one, by itself or times something."""
    if isinstance(node, ast.Constant):
        return type(node.value) in (int, float) and abs(node.value) >= LEAST
    if isinstance(node, ast.BinOp) and isinstance(node.op, ast.Mult):
        return _threshold(node.left) or _threshold(node.right)
    return isinstance(node, ast.Name) and _NAME.match(node.id) is not None


def of_code(path: Path, room: str) -> Iterator[Mutant]:
    """Each number of a named constant, and each comparison by more or less."""
    text = path.read_text(encoding="utf-8")
    raw, starts, tree = text.encode(), _offsets(text), ast.parse(text)

    def at(line: int, column: int) -> int:
        return len(raw[: starts[line - 1] + column].decode())

    for node in tree.body:
        if not isinstance(node, ast.Assign | ast.AnnAssign) or node.value is None:
            continue
        tops = node.targets if isinstance(node, ast.Assign) else [node.target]
        names = [one.id for top in tops for one in ast.walk(top) if isinstance(one, ast.Name)]
        if not any(_NAME.match(name) for name in names):
            continue
        for one in ast.walk(node.value):
            if isinstance(one, ast.Constant) and type(one.value) in (int, float):
                start = at(one.lineno, one.col_offset)
                before = text[start : at(one.end_lineno or 0, one.end_col_offset or 0)]
                after = changed(before)
                if after is not None:
                    yield Mutant(path=path, room=room, at=start, before=before, after=after)
    for node in ast.walk(tree):
        if not isinstance(node, ast.Compare):
            continue
        left = node.left
        for op, right in zip(node.ops, node.comparators, strict=True):
            if type(op) in MOVED:
                start = at(left.end_lineno or 0, left.end_col_offset or 0)
                between = text[start : at(right.lineno, right.col_offset)]
                sign = SIGNS[type(op)]
                after = (MOVED if _threshold(left) or _threshold(right) else TURNED)[type(op)]
                sign_at = start + between.index(sign)
                yield Mutant(path=path, room=room, at=sign_at, before=sign, after=after)
            left = right


def of_table(name: str, room: str) -> Iterator[Mutant]:
    """Each number of a table; of the cautions those that a rule compares with."""
    path = ROOT / "nutrition" / "data" / f"{name}.toml"
    start = 0
    for line in path.read_text(encoding="utf-8").splitlines(keepends=True):
        key = line.partition("=")[0].strip()
        rule = key == "number"
        if not line.startswith(("#", "[")) and (rule or '"' not in line):
            for found in _NUMBER.finditer(line):
                after = changed(found[0])
                if after is not None:
                    here = start + found.start()
                    yield Mutant(path=path, room=room, at=here, before=found[0], after=after)
        start += len(line)


def mutants(rooms: Sequence[str]) -> list[Mutant]:
    """All that there are in some rooms and their tables, in order."""
    out = []
    for room in rooms:
        for path in sorted((ROOT / "nutrition" / room).glob("*.py")):
            out += of_code(path, room)
        for name, whose in TABLES.items():
            out += of_table(name, room) if whose == room else []
    return out


def tests_of(mutant: Mutant) -> list[str]:
    """The test modules of its room, and of what was published on it; those of its name first."""
    tests = ROOT / "nutrition" / "tests"
    own = sorted((tests / mutant.room).glob("test_*.py"))
    named = f"nutrition.{mutant.room}".replace("/", ".")
    published = [
        path
        for path in sorted((tests / "published").glob("test_*.py"))
        if named in path.read_text(encoding="utf-8")
    ]
    words = set(mutant.path.stem.split("_"))
    own.sort(key=lambda path: -len(words & set(path.stem.split("_"))))
    return [".".join(path.relative_to(ROOT).with_suffix("").parts) for path in (*own, *published)]


class _Mutated(importlib.machinery.SourceFileLoader):
    """A module compiled from a mutated source."""

    source = ""

    def get_code(self, fullname: str) -> CodeType | None:
        return compile(self.source, self.path, "exec")


class _Finder(importlib.abc.MetaPathFinder):
    def __init__(self, name: str, mutant: Mutant) -> None:
        self.name, self.mutant = name, mutant

    def find_spec(
        self, fullname: str, path: Any, target: ModuleType | None = None
    ) -> importlib.machinery.ModuleSpec | None:
        if fullname != self.name:
            return None
        loader = _Mutated(fullname, str(self.mutant.path))
        loader.source = self.mutant.mutated()
        return importlib.util.spec_from_file_location(fullname, self.mutant.path, loader=loader)


def put_in(mutant: Mutant) -> None:
    """From here on this process has the change."""
    if mutant.path.suffix == ".py":
        name = ".".join(mutant.path.relative_to(ROOT).with_suffix("").parts)
        sys.meta_path.insert(0, _Finder(name, mutant))
        return
    text, read = mutant.mutated(), Path.read_text
    Path.read_text = lambda self, *a, **k: text if self == mutant.path else read(self, *a, **k)  # type: ignore[method-assign]


def _those(suite: unittest.TestSuite, thorough: bool) -> unittest.TestSuite:
    """The tests that look at everything, or those that do not."""
    out = unittest.TestSuite()
    for one in suite:
        if isinstance(one, unittest.TestSuite):
            out.addTest(_those(one, thorough))
        else:
            marks = {
                *getattr(one, "tags", ()),
                *getattr(getattr(one, one._testMethodName, None), "tags", ()),
            }
            if ("thorough" in marks) == thorough:
                out.addTest(one)
    return out


def survives(modules: Sequence[str]) -> bool:
    """Whether every test passes, those that look at everything last; what cannot be imported is
    noticed too."""
    from hypothesis import settings

    settings.register_profile("mutants", deadline=None, derandomize=True, max_examples=20)
    for thorough in (False, True):
        for name in modules:
            try:
                module = importlib.import_module(name)
                settings.load_profile("mutants")
                suite = unittest.defaultTestLoader.loadTestsFromModule(module)
                result = unittest.TestResult()
                result.failfast = True
                _those(suite, thorough).run(result)
            except Exception:
                return False
            if not result.wasSuccessful():
                return False
    return True


def begin(mutant: Mutant | None, modules: Sequence[str]) -> tuple[int, int]:
    """A process that tries one; its number, and where it tells "1" for one that survives."""
    reads, writes = os.pipe()
    pid = os.fork()
    if pid:
        os.close(writes)
        return pid, reads
    os.close(reads)
    os.setpgrp()
    null = os.open(os.devnull, os.O_WRONLY)
    os.dup2(null, 1)
    os.dup2(null, 2)
    if mutant is not None:
        put_in(mutant)
    os.write(writes, b"1" if survives(modules) else b"0")
    os._exit(0)


def _passes(modules: Sequence[str]) -> bool:
    """Whether every test passes without a change."""
    pid, reads = begin(None, modules)
    told = os.read(reads, 1)
    os.close(reads)
    os.waitpid(pid, 0)
    return told == b"1"


def tried(some: Sequence[Mutant], cores: int) -> Iterator[tuple[Mutant, bool]]:
    """Each with whether it survived; one that takes too long did not."""
    waiting, running = list(some), {}
    while waiting or running:
        while waiting and len(running) < cores:
            one = waiting.pop(0)
            pid, reads = begin(one, tests_of(one))
            running[reads] = pid, one, time.monotonic()
        ready, _, _ = select.select(list(running), [], [], 1.0)
        late = [
            reads
            for reads, (_pid, _one, begun) in running.items()
            if time.monotonic() - begun > LONGEST_SECONDS
        ]
        for reads in {*ready, *late}:
            pid, one, _begun = running.pop(reads)
            told = os.read(reads, 1) if reads in ready else b"0"
            os.close(reads)
            if reads not in ready:
                os.killpg(pid, signal.SIGKILL)
            os.waitpid(pid, 0)
            yield one, told == b"1"


def _sample(found: list[Mutant], count: int, seed: int) -> list[Mutant]:
    """So many of them, or all."""
    return found if count >= len(found) else random.Random(seed).sample(found, count)


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--room", action="append", choices=ROOMS, help="only these rooms")
    parser.add_argument("--file", help="only files whose name begins so")
    parser.add_argument("--count", type=int, default=300, help="how many are tried; 0 for all")
    parser.add_argument("--seed", type=int, default=1, help="which ones")
    parser.add_argument("--cores", type=int, default=os.cpu_count() or 1)
    parser.add_argument("--most-percent", type=float, default=5.0, help="survivors that may be")
    parser.add_argument(
        "--tested", action="store_true", help="the tests passed just now, and need not run first"
    )
    asked = parser.parse_args()
    found = mutants(asked.room or ROOMS)
    if asked.file:
        found = [one for one in found if one.path.stem.startswith(asked.file)]
    reasons = tomllib.loads(REASONS.read_text(encoding="utf-8")) if REASONS.exists() else {}
    chosen = _sample(found, asked.count or len(found), asked.seed)
    print(f"{len(chosen)} of {len(found)} mutants.", flush=True)
    for name in COMMON:
        importlib.import_module(name)
    # where a test fails anyway, every change would seem to be noticed
    first = {} if asked.tested else {one.room: one for one in chosen}
    failing = [room for room, one in first.items() if not _passes(tests_of(one))]
    if failing:
        print(f"Nothing is told by tests that fail without a change: {', '.join(failing)}")
        return 2
    tries: Counter[str] = Counter()
    open_ones = []
    for one, survived in tried(chosen, asked.cores):
        tries[one.room] += 1
        if not survived:
            continue
        why = reasons.get(one.key, "")
        tries[f"{one.room} survived"] += 1
        open_ones += [] if why else [one]
        print(f"SURVIVED {one.where}: {one.line}: {one.before} -> {one.after}  {why}", flush=True)
    for room in ROOMS:
        if tries[room]:
            print(f"{room}: {tries[f'{room} survived']} of {tries[room]} survived")
    total = sum(tries[room] for room in ROOMS)
    survived = sum(tries[f"{room} survived"] for room in ROOMS)
    percent = 100.0 * survived / total if total else 0.0
    print(f"{survived} of {total} survived ({percent:.1f} %), {len(open_ones)} without a reason.")
    return 1 if open_ones or percent > asked.most_percent else 0


if __name__ == "__main__":
    sys.exit(main())
