"""Wordings of sign-up forms, each with the policy that it means."""

import re
from pathlib import Path
from typing import Any

import pytest

from newknot.core.policy import SitePolicy
from newknot.core.policy.character_classes import STANDARD_CLASSES
from newknot.core.policy.rules_prose import read_prose

TABLE = Path(__file__).parents[2] / "vectors" / "sign_up_wordings.tsv"
WORDINGS = [line.split("\t") for line in TABLE.read_text("utf-8").splitlines()]
RULES = {"k": "min_classes", "run": "max_identical_run", "seq": "max_sequence_run",
         "uses": "max_uses", "rem": "history_depth", "age": "max_age_days",
         "keep": "keeps_first"}  # fmt: skip
FLAGS = {"fold": "folds_case", "dist": "distinct"}
KINDS = {"l": "lower", "u": "upper", "d": "digit", "s": "symbol"}


def characters(kinds: str, usual: dict[str, str]) -> str:
    return "".join(usual[KINDS[k]] for k in kinds)


def meant(spec: str) -> dict[str, Any]:
    """The policy of a line's second column, in a form that can be compared."""
    found: dict[str, Any] = {"min_length": 1, "max_length": 64}
    usual, only, least, ends = dict(STANDARD_CLASSES), "luds", dict[str, int](), list[Any]()
    for word in spec.split():
        if length := re.fullmatch(r"(\d*)-(\d*)", word):
            found["min_length"] = int(length[1] or 1)
            found["max_length"] = int(length[2] or max(64, found["min_length"]))
        elif word in FLAGS:
            found[FLAGS[word]] = True
        elif word == "blank":
            usual["blank"] = " "
        elif word.startswith("sym:"):
            usual["symbol"] = word[4:]
        elif word.startswith("x:"):
            found["excluded"] = set(word[2:])
        elif word.startswith("only:"):
            only = word[5:]
        elif end := re.fullmatch(r"(first|last)(!?):(\w+)", word):
            ends.append((f"{end[1]}_from", bool(end[2]), end[3]))
        elif rule := re.fullmatch(rf"({'|'.join(RULES)})(\d+)", word):
            found[RULES[rule[1]]] = int(rule[2])
        elif demand := re.fullmatch(r"([ludsL]+)(\d)", word):
            least[demand[1].replace("L", "lu")] = int(demand[2])
    groups = [*least, *(k for k in only if not any(k in group for group in least))]
    found["classes"] = {
        (frozenset(characters(group, usual)), least.get(group, 0)) for group in groups
    } | ({(frozenset(" "), 0)} if "blank" in usual else set())
    alphabet = {c for one, _ in found["classes"] for c in one}
    for key, is_refusal, kinds in ends:
        found[key] = {c for c in alphabet if (c in characters(kinds, usual)) != is_refusal}
    return found


def read(text: str) -> tuple[dict[str, Any], bool]:
    document, unsure = read_prose(text.replace("\\n", "\n"))
    SitePolicy.from_dict(document)
    found = dict(document)
    found["classes"] = {(frozenset(c["characters"]), c["minimum"]) for c in document["classes"]}
    for key in ("first_from", "last_from", "excluded"):
        if key in found:
            found[key] = set(found[key])
    return found, bool(unsure)


@pytest.mark.parametrize(("text", "spec"), WORDINGS, ids=range(len(WORDINGS)))
def test_a_wording_is_read_as_it_is_meant(text: str, spec: str) -> None:
    found, is_unsure = read(text)
    assert is_unsure == ("?" in spec.split())
    assert found == meant(spec)
