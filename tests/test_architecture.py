"""The arrow between the layers, read off the syntax trees."""

import ast
from pathlib import Path

import pytest

SOURCE = Path(__file__).parents[1] / "src" / "newknot"
ALLOWED = {
    "core": {"core"},
    "crypto": {"crypto", "core"},
    "store": {"store", "crypto", "core"},
    "exchange": {"exchange", "core"},
    "outside": {"outside", "core"},
    "usecases": {"usecases", "exchange", "outside", "store", "crypto", "core"},
    "api": {"api", "usecases", "exchange", "outside", "store", "crypto", "core"},
    "demo": {"demo", "usecases", "store", "crypto", "core"},
    "standins": {"standins"},
}
ONLY_IN = {
    "fastapi": {"api"}, "starlette": {"api", "standins"}, "pydantic": {"api", "exchange"},
    "uvicorn": {"serving", "standins"}, "sqlite3": {"store", "standins"},
    "cryptography": {"crypto"}, "argon2": {"crypto"}, "shamir_mnemonic": {"crypto"},
    "joserfc": {"crypto"}, "httpx": {"outside"}, "httpcore": {"outside"}, "zxingcpp": {"outside"},
    "PIL": {"outside"}, "segno": {"exchange"}, "defusedcsv": {"exchange"},
}  # fmt: skip
CORE_MAY_IMPORT = {
    *("__future__", "ada_url", "array", "base64", "binascii", "bisect", "collections"),
    *("contextlib", "dataclasses", "datetime", "enum", "functools", "gzip", "hashlib", "hmac"),
    *("html", "importlib", "ipaddress", "itertools", "json", "math", "operator", "re", "string"),
    *("fractions", "struct", "typing", "unicodedata", "urllib"),
    *("numpy", "rapidfuzz", "pyotp", "publicsuffixlist", "confusable_homoglyphs"),
}
IMPURE_CALLS = {"open", "print", "input", "exec", "eval", "__import__"}
IMPURE_ATTRIBUTES = {"now", "utcnow", "today", "read_bytes", "read_text", "urandom"}
BESIDE = {"__main__", "__init__", "edge", "serving"}
MODULES = sorted(SOURCE.rglob("*.py"))


def imports(tree: ast.AST) -> list[str]:
    """Absolute names that a module imports."""
    found: list[str] = []
    for node in ast.walk(tree):
        if isinstance(node, ast.Import):
            found.extend(alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom):
            assert node.level == 0, "relative import"
            found.append(node.module or "")
    return found


def part_of(path: Path) -> str:
    """The layer of a module; for one beside the layers its own name."""
    return path.relative_to(SOURCE).parts[0].removesuffix(".py")


@pytest.mark.parametrize("path", MODULES, ids=lambda p: str(p.relative_to(SOURCE)))
def test_imports_follow_the_arrow(path: Path) -> None:
    part = part_of(path)
    assert part in {*ALLOWED, *BESIDE}, "a package without a place"
    for name in imports(ast.parse(path.read_text())):
        top, _, rest = name.partition(".")
        if top == "newknot" and rest and part in ALLOWED:
            assert rest.split(".")[0] in ALLOWED[part], f"{part} imports {name}"
        if top == "newknot":
            assert rest.split(".")[0] != "standins" or part == "standins"
        assert part in ONLY_IN.get(top, {part}), f"{part} imports {top}"


@pytest.mark.parametrize(
    "path", sorted((SOURCE / "core").rglob("*.py")), ids=lambda p: str(p.relative_to(SOURCE))
)
def test_core_is_pure(path: Path) -> None:
    tree = ast.parse(path.read_text())
    for name in imports(tree):
        top = name.split(".")[0]
        assert top == "newknot" or top in CORE_MAY_IMPORT, f"core imports {name}"
        assert top not in ("gzip", "importlib") or path.name == "shipped.py"
    for node in ast.walk(tree):
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Name):
            assert node.func.id not in IMPURE_CALLS, f"line {node.lineno}"
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute):
            loads = node.func.attr in IMPURE_ATTRIBUTES
            assert not loads or path.name == "shipped.py", f"line {node.lineno}"


def module_name(path: Path) -> str:
    """The dotted name of a module, packages by their own."""
    parts = path.relative_to(SOURCE.parent).with_suffix("").parts
    return ".".join(parts[:-1] if parts[-1] == "__init__" else parts)


def graph() -> dict[str, set[str]]:
    """Each module with those that it imports, whenever and for whatever purpose."""
    names = {module_name(path): path for path in MODULES}
    found: dict[str, set[str]] = {}
    for name, path in names.items():
        found[name] = set()
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.ImportFrom) and node.module:
                for alias in node.names:
                    whole = f"{node.module}.{alias.name}"
                    found[name].add(whole if whole in names else node.module)
            elif isinstance(node, ast.Import):
                found[name] |= {alias.name for alias in node.names}
        found[name] &= names.keys() - {name}
    return found


def circle(among: dict[str, set[str]]) -> list[str]:
    """Modules that import one another in a ring; none where there is no ring."""
    left = {name: set(needs) for name, needs in among.items()}
    while free := [name for name, needs in left.items() if not needs]:
        for name in free:
            del left[name]
        for needs in left.values():
            needs.difference_update(free)
    ring = [min(left)] if left else []
    while ring and ring[-1] not in ring[:-1]:
        ring.append(min(left[ring[-1]]))
    return ring[ring.index(ring[-1]) :] if ring else []


def test_no_modules_import_one_another_in_a_ring() -> None:
    assert circle(graph()) == []
    assert circle({"a": {"b"}, "b": {"c"}, "c": {"b"}, "d": set()}) == ["b", "c", "b"]


@pytest.mark.parametrize("part", ["core", "crypto", "store"])
def test_each_module_of_weight_has_its_tests(part: str) -> None:
    folder = SOURCE / part
    for path in folder.rglob("*.py"):
        text = path.read_text()
        decides = any(
            isinstance(n, ast.If | ast.For | ast.While) for n in ast.walk(ast.parse(text))
        )
        lines = [x for x in text.splitlines() if x.strip()]
        if len(lines) <= 40 or path.name == "__init__.py" or not decides:
            continue
        own = Path(__file__).parent / part / path.relative_to(folder)
        beside = own.parent / f"test_{path.name}"
        together = own.parent.parent / f"test_{own.parent.name}.py"
        assert beside.exists() or together.exists(), f"{beside.name} is missing"
