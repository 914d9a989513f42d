"""Small faults planted one by one: how many of them the tests notice.

    ./run mutants [--count 400] [--minutes 58] [--seed 1] [--only PART]

A mutant changes one thing in the syntax tree of one module: a comparison, a number, a condition,
a returned value, a call that is dropped. The tests that reach its line (known from one run of the
suite with coverage) are tried, those for its module first and the short ones before the long ones;
a mutant that none of them notices has survived. It works on copies of the tree, so that the
checkout is never touched, and stops when its time is over.
"""

import argparse
import ast
import json
import os
import random
import shutil
import subprocess
import sys
import tempfile
import time
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from xml.etree import ElementTree

import coverage

ROOT = Path(__file__).parents[1]
PARTS = ("core", "crypto", "store", "usecases", "api/guard.py")
TESTS_S = 60.0
HEAVY = ("e2e", "test_durability.py", "test_package.py")
SWAPPED: dict[type[ast.AST], type[ast.AST]] = {
    ast.Lt: ast.LtE,
    ast.LtE: ast.Lt,
    ast.Gt: ast.GtE,
    ast.GtE: ast.Gt,
    ast.Eq: ast.NotEq,
    ast.NotEq: ast.Eq,
    ast.Is: ast.IsNot,
    ast.IsNot: ast.Is,
    ast.In: ast.NotIn,
    ast.NotIn: ast.In,
    ast.And: ast.Or,
    ast.Or: ast.And,
    ast.Add: ast.Sub,
    ast.Sub: ast.Add,
    ast.Mult: ast.FloorDiv,
}


@dataclass(frozen=True, slots=True)
class Mutant:
    """One fault: the module, the line, what was changed, and the module's text with it."""

    path: Path
    line: int
    what: str
    text: str


def places(path: Path) -> list[tuple[Path, int, int]]:
    """Every mutant of a module as (module, place among its nodes, which change there)."""
    nodes = _nodes(ast.parse(path.read_text("utf-8")))
    return [(path, at, which) for at, node in enumerate(nodes) for which in range(_count(node))]


def made(path: Path, at: int, which: int) -> Mutant:
    """The mutant of a place."""
    tree = ast.parse(path.read_text("utf-8"))
    node = _nodes(tree)[at]
    line, what = getattr(node, "lineno", 0), _changes(node)[which]
    _apply(node, what)
    return Mutant(path, line, what, ast.unparse(ast.fix_missing_locations(tree)))


def _nodes(tree: ast.AST) -> list[ast.AST]:
    """What can be changed; not how a record is made (frozen, with slots), which nobody sees."""
    unseen = {
        inner
        for node in ast.walk(tree)
        if isinstance(node, ast.ClassDef)
        for decorator in node.decorator_list
        for inner in ast.walk(decorator)
    }
    return [node for node in ast.walk(tree) if node not in unseen and _changes(node)]


def _count(node: ast.AST) -> int:
    return len(_changes(node))


def _changes(node: ast.AST) -> list[str]:
    """What can be changed at a node, in words."""
    if isinstance(node, ast.Compare) and type(node.ops[0]) in SWAPPED:
        return [f"{type(node.ops[0]).__name__} for its opposite"]
    if isinstance(node, ast.BoolOp):
        return [f"{type(node.op).__name__} for the other"]
    if isinstance(node, ast.BinOp) and type(node.op) in SWAPPED:
        return [f"{type(node.op).__name__} for another"]
    if isinstance(node, ast.UnaryOp) and isinstance(node.op, ast.Not):
        return ["a not let go"]
    if isinstance(node, ast.If) and not _is_typing(node):
        return ["a condition always true", "a condition never true"]
    if isinstance(node, ast.Constant) and type(node.value) is int:
        return ["a number one greater"]
    if isinstance(node, ast.Constant) and type(node.value) is bool:
        return ["true for false"]
    if isinstance(node, ast.Return) and node.value is not None:
        return [] if isinstance(node.value, ast.Constant) else ["nothing returned"]
    if isinstance(node, ast.Expr) and isinstance(node.value, ast.Call):
        return ["a call dropped"]
    return []


def _is_typing(node: ast.If) -> bool:
    return isinstance(node.test, ast.Name) and node.test.id == "TYPE_CHECKING"


def _apply(node: ast.AST, what: str) -> None:
    if isinstance(node, ast.Compare):
        node.ops = [SWAPPED[type(node.ops[0])](), *node.ops[1:]]  # type: ignore[list-item]
    elif isinstance(node, ast.BoolOp | ast.BinOp):
        node.op = SWAPPED[type(node.op)]()  # type: ignore[assignment]
    elif isinstance(node, ast.UnaryOp):
        node.op = ast.UAdd()
        node.operand = ast.Call(ast.Name("bool", ast.Load()), [node.operand], [])
        ast.fix_missing_locations(node)
    elif isinstance(node, ast.If):
        node.test = ast.copy_location(ast.Constant("always" in what), node.test)
    elif isinstance(node, ast.Constant):
        node.value = not node.value if type(node.value) is bool else int(str(node.value)) + 1
    elif isinstance(node, ast.Return | ast.Expr):
        node.value = ast.copy_location(ast.Constant(None), node)


def modules(only: str) -> list[Path]:
    """The modules that mutants are made of."""
    source = ROOT / "src" / "newknot"
    found: list[Path] = []
    for part in PARTS:
        place = source / part
        found += [place] if place.is_file() else sorted(place.rglob("*.py"))
    return [p for p in found if only in str(p.relative_to(source)) and p.name != "__init__.py"]


@dataclass(frozen=True, slots=True)
class Reach:
    """Which tests reach which lines of a module, and how long each takes, in seconds."""

    by_line: dict[str, dict[int, list[str]]]
    seconds: dict[str, float]

    def tests(self, mutant: Mutant) -> list[str]:
        """The tests for a mutant, within `TESTS_S`: its module's own first, then by length.

        A line that runs when its module is imported is reached by whoever reaches the module.
        """
        name = str(mutant.path.relative_to(ROOT))
        lines = self.by_line.get(name, {})
        if mutant.line in lines_of_functions(mutant.path):
            statement = lines_of_statement(mutant.path, mutant.line)
            found = {test for line in statement for test in lines.get(line, ())}
        else:
            inner = lines_of_functions(mutant.path)
            found = {test for line in inner for test in lines.get(line, ())}
        own = f"test_{mutant.path.stem}"
        ordered = sorted(found, key=lambda t: (own not in t, self.seconds.get(t, 1.0), t))
        within, spent = list[str](), 0.0
        for test in ordered:
            spent += self.seconds.get(test, 1.0)
            if within and spent > TESTS_S:
                break
            within.append(test)
        return within


def lines_of_functions(path: Path) -> set[int]:
    """The lines within the bodies of a module's functions."""
    found: set[int] = set()
    for node in ast.walk(ast.parse(path.read_text("utf-8"))):
        if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef):
            found.update(range(node.body[0].lineno, (node.end_lineno or node.lineno) + 1))
    return found


def lines_of_statement(path: Path, at: int) -> range:
    """The lines of the innermost statement at a line, without those of its body: a statement over
    several lines runs as one, and not each of them is recorded.
    """
    found = range(at, at + 1)
    for node in ast.walk(ast.parse(path.read_text("utf-8"))):
        if isinstance(node, ast.stmt) and node.lineno <= at <= (node.end_lineno or node.lineno):
            body = getattr(node, "body", None)
            end = body[0].lineno - 1 if body else node.end_lineno or node.lineno
            if at <= end:
                found = range(node.lineno, end + 1)
    return found


def reach_of_tests(tree: Path) -> Reach:
    """Runs the suite once in a copy of the tree, noting which test reaches which line."""
    command = [sys.executable, "-m", "pytest", "-n", "2", "--dist", "worksteal"]
    command += [f"--ignore=tests/{heavy}" for heavy in HEAVY]
    command += ["--cov=newknot", "--cov-context=test", "--cov-report=", "--junitxml=tests.xml"]
    done = subprocess.run(command, cwd=tree, env=_environment(tree), capture_output=True)
    if done.returncode:
        sys.exit("The tests fail without any fault:\n" + done.stdout.decode()[-3000:])
    return read_reach(tree / ".coverage", tree / "tests.xml")


def only_collected(reach: Reach, tree: Path) -> Reach:
    """Without tests that are not found by their names: asked for one, pytest would fail by that."""
    command = [sys.executable, "-m", "pytest", "--collect-only", "tests"]
    said = subprocess.run(command, cwd=tree, env=_environment(tree), capture_output=True, text=True)
    there = set(said.stdout.splitlines())
    by_line = {
        file: {line: [t for t in tests if t in there] for line, tests in lines.items()}
        for file, lines in reach.by_line.items()
    }
    return Reach(by_line, reach.seconds)


def read_reach(data: Path, results: Path) -> Reach:
    """The reach of a run: its coverage data and its results as JUnit's XML."""
    seconds: dict[str, float] = {}
    for case in ElementTree.parse(results).getroot().iter("testcase"):  # noqa: S314
        place = case.get("classname", "").replace(".", "/") + ".py"
        seconds[f"{place}::{case.get('name')}"] = float(case.get("time", "1"))
    found = coverage.CoverageData(str(data))
    found.read()
    by_line: dict[str, dict[int, list[str]]] = {}
    for file in found.measured_files():
        inner = file[file.index("src/newknot") :]
        by_line[inner] = {
            line: sorted({name.split("|")[0] for name in names if name})
            for line, names in found.contexts_by_lineno(file).items()
        }
    return Reach(by_line, seconds)


def survives(mutant: Mutant, tree: Path, reach: Reach) -> bool:
    """Whether all tests that reach its line pass with the fault in place, in a copy of the tree."""
    tests = reach.tests(mutant)
    if not tests:
        return True
    place = tree / mutant.path.relative_to(ROOT)
    plain = place.read_text("utf-8")
    place.write_text(mutant.text, "utf-8")
    (tree / "chosen.txt").write_text("\n".join(tests))
    command = [sys.executable, "-m", "pytest", "-x", "-q", "--no-header", "@chosen.txt"]
    try:
        done = subprocess.run(
            command,
            cwd=tree,
            env=_environment(tree),
            capture_output=True,
            timeout=4 * TESTS_S,
        )
    except subprocess.TimeoutExpired:
        return False
    finally:
        place.write_text(plain, "utf-8")
    return done.returncode == 0


def _environment(tree: Path) -> dict[str, str]:
    return {**os.environ, "PYTHONPATH": f"{tree / 'src'}:{tree}"}


def main() -> None:
    """Draws the sample, tries it over two copies of the tree, and says what survived."""
    parser = argparse.ArgumentParser(prog="mutants", description=__doc__)
    parser.add_argument("--count", type=int, default=400)
    parser.add_argument("--minutes", type=float, default=58.0)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--only", default="", help="a part of the modules' paths")
    parser.add_argument("--workers", type=int, default=2)
    parser.add_argument(
        "--reach",
        nargs=2,
        type=Path,
        metavar=("DATA", "XML"),
        help="coverage data with contexts and results of a run made before",
    )
    arguments = parser.parse_args()
    drawn = _sample(modules(arguments.only), arguments.count, arguments.seed)
    trees = [_copied() for _ in range(arguments.workers)]
    reach = read_reach(*arguments.reach) if arguments.reach else reach_of_tests(trees[0])
    reach = only_collected(reach, trees[0])
    until = time.monotonic() + 60 * arguments.minutes
    tried: list[tuple[Mutant, bool]] = []

    def work(at: int) -> None:
        for mutant in drawn[at :: arguments.workers]:
            if time.monotonic() > until:
                return
            survived = survives(mutant, trees[at], reach)
            tried.append((mutant, survived))
            if survived:
                print(f"survived: {_where(mutant)}", flush=True)

    try:
        with ThreadPoolExecutor(arguments.workers) as pool:
            list(pool.map(work, range(arguments.workers)))
    finally:
        for tree in trees:
            shutil.rmtree(tree, ignore_errors=True)
    left = [_where(mutant) for mutant, survived in tried if survived]
    print(f"{len(tried)} mutants tried, {len(tried) - len(left)} noticed, {len(left)} survived")
    (ROOT / "var").mkdir(exist_ok=True)
    (ROOT / "var" / "mutants.json").write_text(json.dumps({"tried": len(tried), "survived": left}))


def _sample(found: list[Path], count: int, seed: int) -> list[Mutant]:
    every = [place for path in found for place in places(path)]
    return [made(*one) for one in random.Random(seed).sample(every, min(count, len(every)))]  # noqa: S311


def _where(mutant: Mutant) -> str:
    return f"{mutant.path.relative_to(ROOT)}:{mutant.line}: {mutant.what}"


def _copied() -> Path:
    tree = Path(tempfile.mkdtemp(prefix="mutants-"))
    for part in ("src", "tests", "scripts", "docs", "web/src", "pyproject.toml"):
        there = tree / part
        there.parent.mkdir(parents=True, exist_ok=True)
        if (ROOT / part).is_dir():
            shutil.copytree(ROOT / part, there, ignore=shutil.ignore_patterns("__pycache__"))
        else:
            shutil.copy(ROOT / part, there)
    return tree


if __name__ == "__main__":
    main()
