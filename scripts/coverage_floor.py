"""Prints coverage by part; fails where a module of core, crypto or store is below the floor."""

import json
import sys
from collections import defaultdict
from pathlib import Path

FLOOR = 95.0
HELD = ("core", "crypto", "store")


def main(python: Path, web: Path) -> None:
    """python: coverage.py's JSON; web: the summary of the front end's run."""
    files = json.loads(python.read_text())["files"]
    reached: dict[str, list[int]] = defaultdict(lambda: [0, 0])
    below: list[str] = []
    for name, found in sorted(files.items()):
        parts = Path(name).parts
        part = parts[parts.index("newknot") + 1].removesuffix(".py")
        summary = found["summary"]
        done = summary["covered_lines"] + summary["covered_branches"]
        total = summary["num_statements"] + summary["num_branches"]
        reached[part][0] += done
        reached[part][1] += total
        if part in HELD and total and 100 * done / total < FLOOR:
            below.append(f"{name}: {100 * done / total:.1f} %, {_lines(found)}")
    for part, (done, total) in sorted(reached.items()):
        if total:
            print(f"{part:12} {100 * done / total:5.1f} % of lines and branches")
    if web.exists():
        whole = json.loads(web.read_text())["total"]
        lines, branches = whole["lines"]["pct"], whole["branches"]["pct"]
        print(f"{'web':12} {lines:5.1f} % of lines, {branches:.1f} % of branches, by components")
    if below:
        sys.exit(f"Below {FLOOR:.0f} %:\n" + "\n".join(below))


def _lines(found: dict[str, list[int]]) -> str:
    missing = found["missing_lines"]
    return "lines " + ", ".join(map(str, missing[:12])) + (" …" if len(missing) > 12 else "")


if __name__ == "__main__":
    main(Path(sys.argv[1]), Path(sys.argv[2]))
