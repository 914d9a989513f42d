"""Prints the lines of tests for each line of code, by part; fails above the ceiling.

Lines that are neither blank nor comments count; data and generated files do not.
"""

import sys
from pathlib import Path

ROOT = Path(__file__).parents[1]
CEILING = 0.35
KINDS = {".py", ".ts", ".tsx", ".css", ".sql"}


def lines(paths: list[Path]) -> int:
    """Lines that say something."""
    total = 0
    for path in paths:
        for line in path.read_text("utf-8").splitlines():
            text = line.strip()
            total += bool(text) and not text.startswith(("#", "//", "--", "/*", "*"))
    return total


def gather(folder: Path, *, tests: bool) -> list[Path]:
    """Source files below a folder that are, or are not, tests."""
    return [
        path
        for path in sorted(folder.rglob("*"))
        if path.suffix in KINDS
        and path.name != "schema.d.ts"
        and "node_modules" not in path.parts
        and (".test." in path.name) == tests
    ]


def main() -> None:
    source, tests = ROOT / "src" / "newknot", ROOT / "tests"
    rows: list[tuple[str, int, int]] = []
    for part in (
        "core",
        "crypto",
        "store",
        "exchange",
        "outside",
        "usecases",
        "api",
        "demo",
        "standins",
    ):
        code = lines(gather(source / part, tests=False))
        rows.append((part, code, lines(gather(tests / part, tests=False))))
    web = ROOT / "web" / "src"
    with_help = [*gather(web, tests=True), *gather(ROOT / "web" / "test", tests=False)]
    rows.append(("web", lines(gather(web, tests=False)), lines(with_help)))
    edge = list(source.glob("*.py"))
    outer = [*tests.glob("*.py"), *(tests / "e2e").glob("*.py"), *(tests / "support").glob("*.py")]
    rows.append(("edge, journeys", lines(edge), lines(outer)))
    code, test = sum(r[1] for r in rows), sum(r[2] for r in rows)
    for name, c, t in rows:
        print(f"{name:16} {c:6,} lines of code {t:6,} of tests {t / max(1, c):5.2f}")
    print(f"{'in all':16} {code:6,} lines of code {test:6,} of tests {test / code:5.2f}")
    if test / code > CEILING:
        sys.exit(f"More than {CEILING} lines of tests for a line of code")


if __name__ == "__main__":
    main()
