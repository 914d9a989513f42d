# ruff: noqa: E501 - wordings are tables
"""Policies from prose: what a sign-up form tells people, in the usual wordings.

A text is cut into clauses. Of a clause its known parts are struck out one after another; only where
nothing but filling words is left was it understood, and only then is it taken. What is not
understood is given back as it stood.
"""

import re
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from newknot.core.policy.character_classes import DIGITS, LOWER, STANDARD_CLASSES, SYMBOLS, UPPER
from newknot.core.policy.policy_rules import LENGTH_LIMIT

CLAUSE_MOST = 300
"""Nobody says one rule in more characters."""
_WORDS = (
    "zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen "
    "sixteen"
)
_NUMBERS = {w: i for i, w in enumerate(_WORDS.split())} | {
    "a": 1, "an": 1, "single": 1, "twenty": 20, "thirty": 30, "once": 1, "twice": 2,
    "thrice": 3,
}  # fmt: skip
N = rf"(?:[0-9]{{1,3}}|{'|'.join(sorted(_NUMBERS, key=len, reverse=True))})"
_MANY = rf"(?:[0-9]{{1,3}}|{'|'.join(_WORDS.split()[3:])})"
_KINDS = {
    "lower": r"(?:lower[- ]?case(?:d)?|small|lower)(?: (?:letters?|characters?|alphabets?))?",
    "upper": r"(?:(?:upper[- ]?case(?:d)?|capital(?:i[sz]ed)?|upper)"
    r"(?: (?:letters?|characters?|alphabets?))?|capitals|caps)",
    "letter": r"(?:(?:english |latin )?letters?(?: of the alphabet)?"
    r"|alpha(?:betic(?:al)?)?(?: characters?| letters?))",
    "digit": r"(?:digits?|numbers?|numerals?|numeric(?:al)?(?: (?:characters?|digits?|values?))?)",
    "symbol": r"(?:(?:special|non-?alphanumeric|other) (?:characters?|symbols?|chars?)|symbols?"
    r"|specials|punctuation(?: (?:marks?|characters?|symbols?))?)",
}
_SYMBOL_NAMES = {
    "hyphen": "-", "dash": "-", "underscore": "_", "period": ".", "dot": ".", "full stop": ".",
    "at sign": "@", "exclamation mark": "!", "exclamation point": "!", "question mark": "?",
    "hash": "#", "pound sign": "#", "dollar sign": "$", "percent sign": "%", "ampersand": "&",
    "asterisk": "*", "plus sign": "+", "equals sign": "=", "comma": ",", "colon": ":",
    "semicolon": ";", "slash": "/", "backslash": "\\", "apostrophe": "'", "double quote": '"',
    "quote": "'\"", "quotation mark": "\"", "parenthesis": "()", "parentheses": "()",
    "angle bracket": "<>", "tilde": "~",
}  # fmt: skip
_FILLING = frozenset(
    [
        "a",
        "accept",
        "accepted",
        "account",
        "all",
        "allow",
        "allowed",
        "also",
        "an",
        "and",
        "any",
        "are",
        "as",
        "ask",
        "at",
        "be",
        "both",
        "but",
        "can",
        "case",
        "categories",
        "category",
        "char",
        "character",
        "characters",
        "chars",
        "choose",
        "classes",
        "combination",
        "comprise",
        "consist",
        "consisting",
        "consists",
        "contain",
        "containing",
        "contains",
        "create",
        "creating",
        "do",
        "does",
        "each",
        "english",
        "ensure",
        "enter",
        "following",
        "for",
        "from",
        "has",
        "have",
        "hold",
        "holding",
        "holds",
        "in",
        "include",
        "included",
        "includes",
        "including",
        "is",
        "it",
        "its",
        "keep",
        "kind",
        "kinds",
        "least",
        "length",
        "long",
        "made",
        "make",
        "may",
        "mix",
        "mixture",
        "must",
        "need",
        "needed",
        "needs",
        "new",
        "of",
        "on",
        "one",
        "ones",
        "only",
        "or",
        "passcode",
        "passphrase",
        "password",
        "passwords",
        "permitted",
        "pin",
        "please",
        "require",
        "required",
        "requirement",
        "requirements",
        "requires",
        "rule",
        "rules",
        "secret",
        "secure",
        "security",
        "sensitive",
        "set",
        "shall",
        "should",
        "size",
        "strong",
        "supported",
        "supports",
        "sure",
        "that",
        "the",
        "them",
        "these",
        "they",
        "this",
        "those",
        "to",
        "total",
        "type",
        "types",
        "up",
        "use",
        "used",
        "uses",
        "using",
        "valid",
        "was",
        "we",
        "well",
        "will",
        "with",
        "you",
        "your",
    ]
)
_SYMBOL_RUN = re.compile(
    r"(?<![A-Za-z0-9])[(\"']?(?:[!\"#$%&'()*+,\-./:;<=>?@\[\\\]^_`{|}~](?:[ ]?,?[ ]?|[ ]and[ ]|[ ]or[ ])){2,}"
)
_MARK = "\ue000"
_CLAUSES = re.compile(
    r"[;\n•·]|(?<![0-9])\.(?=\s|$)|(?<=[0-9])\.(?=\s+[A-Z]|\s*$)|[!?](?=\s|$)"
    r"|,\s*(?:and\s+|but\s+)?(?=(?:must|may|can|cannot|should|no|not|never|without|at (?:least|most)|it "
    r"|you |they |contain|contains|includ|with |use |only |up to |max|min|be |have |has |expire))"
    r"|\s+(?:and|but|as well as|or)\s+(?=(?:must|may|can|cannot|can't|should|no\s|not\s|never|without"
    r"|at (?:least|most)|it |you |contain|include|have |has |be |is |are |a m(?:ax|in)"
    r"|max|min|expire|up to|no\b|ha(?:s|ve)\b))|\s+and\s+(?=(?:end|start|begin))"
    r"|\s+(?=with (?:at least|a minimum|one|no|both))|\s+(?=(?:and )?(?:contain|includ)ing\b)"
    r"|,\s+(?=(?:and\s+)?[0-9]+ (?:to|-) [0-9])",
    re.IGNORECASE,
)


@dataclass(slots=True)
class _Found:
    """What the clauses so far have said."""

    rules: dict[str, Any] = field(default_factory=dict)
    least: dict[tuple[str, ...], int] = field(default_factory=dict)
    only: list[str] = field(default_factory=list)
    absent: set[str] = field(default_factory=set)
    symbols: str = ""
    excluded: str = ""
    blanks: bool = False
    first: list[tuple[bool, tuple[str, ...]]] = field(default_factory=list)
    last: list[tuple[bool, tuple[str, ...]]] = field(default_factory=list)


def read_prose(text: str) -> tuple[dict[str, Any], tuple[str, ...]]:
    """The JSON form of what was sure, and the parts of the text that were not."""
    plain = re.sub(r"[\u2018\u2019]", "'", text)
    plain = re.sub(r"[\u201c\u201d]", '"', plain)
    plain = re.sub(r"[\u2010-\u2015]", "-", plain).replace("\xa0", " ")
    plain = re.sub(r"\b(e\.g|i\.e|min|max|incl|chars?|etc)\.", r"\1", plain, flags=re.IGNORECASE)
    # What stands in brackets beside a kind's name says the same; alone it is the kind's name.
    plain = re.sub(r"\s?\((?:[Aa]-[Zz]|0-9)(?:, ?(?:[Aa]-[Zz]|0-9))*\)", "", plain)
    for range_, kind in (("A-Z", "uppercase"), ("a-z", "lowercase"), ("0-9", "digits")):
        plain = re.sub(rf"(?<![\w-]){range_}(?![\w-])", kind, plain)
    lists: list[str] = []

    def marked(found: re.Match[str]) -> str:
        return _marked(found[0], lists)

    found, unsure = _Found(), []
    demands = False
    for part in _CLAUSES.split(_SYMBOL_RUN.sub(marked, plain)):
        said = part.strip(" -*\t,:")
        if not said:
            continue
        if len(said) > CLAUSE_MOST:
            unsure.append(_unmarked(said, lists))
            continue
        trial = _copied(found)
        understood, demands = _Clause(said, lists, trial).read(demands)
        if understood:
            found = trial
        else:
            unsure.append(_unmarked(said, lists))
    return _document(found, unsure), tuple(unsure)


def _marked(text: str, lists: list[str]) -> str:
    """A list of symbols as one mark; what only parts sentences stays what it is."""
    body, tail = text, ""
    end = re.search(r"(?<=\S)([.,;:]+)\s*$", body)
    if end and not re.search(r"\s[.,;:]\s*$", body):
        body, tail = body[: end.start()], body[end.start() :]
    inner = body.strip()
    if inner.startswith("(") and inner.endswith(")"):
        inner = inner[1:-1]
    symbols = "".join(c for c in dict.fromkeys(inner) if c in SYMBOLS)
    if "," in symbols and re.search(r"\S,\s", inner):
        symbols = symbols.replace(",", "")
    if len(symbols) < 2 or not set(symbols) - set("().,'\"-:;"):
        return text
    lists.append(symbols)
    space = " " if body.endswith(" ") and not tail else ""
    return f" {_MARK}{len(lists) - 1}{_MARK}{space}{tail}"


def _unmarked(said: str, lists: list[str]) -> str:
    return re.sub(f"{_MARK}([0-9]+){_MARK}", lambda m: lists[int(m[1])], said).strip()


def _copied(found: _Found) -> _Found:
    return _Found(
        dict(found.rules), dict(found.least), list(found.only), set(found.absent), found.symbols,
        found.excluded, found.blanks, list(found.first), list(found.last),
    )  # fmt: skip


def _number(text: str) -> int:
    lowered = text.lower()
    return _NUMBERS[lowered] if lowered in _NUMBERS else max(1, min(LENGTH_LIMIT, int(text)))


def _kinds_in(text: str) -> tuple[str, ...] | None:
    """The kinds that a list names, in order; None where it is no such list."""
    found: list[str] = []
    for word in re.split(r"\s*(?:,|/|&|\+|\band\b|\bor\b)\s*", text.strip()):
        said = re.sub(r"^(?:an?|any|of|the|both|some)\s+", "", word.strip())
        if not said:
            continue
        if re.fullmatch(r"alpha-?numeric(?:al)?(?: (?:characters?|text))?", said):
            found += ["letter", "digit"]
            continue
        kind = next((k for k, shape in _KINDS.items() if re.fullmatch(shape, said)), None)
        if kind is None:
            return None
        found.append(kind)
    return tuple(dict.fromkeys(found)) or None


class _Clause:
    """One clause: its known parts are struck out of it, with what they say."""

    def __init__(self, said: str, lists: list[str], found: _Found) -> None:
        self.said = said.lower()
        self.lists = lists
        self.found = found
        self.took = False
        self.lists_symbols = False

    def read(self, demands: bool) -> tuple[bool, bool]:
        """Whether nothing is left that was not understood; and whether kinds named by the next
        clause alone are demanded as those of this one were.
        """
        for pattern, act in _PATTERNS:
            self._strike(pattern, act)
        is_refusal = re.search(_REFUSES, self.said) is not None
        demanded = self._kinds(is_refusal, demands)
        left = re.sub(_REFUSES, " ", self.said) if self.took else self.said
        words = re.findall(r"[^\s,:()\"]+", left)
        rest = [w for w in words if w.strip("'.*-&/+") and w.strip("'.*-&/+") not in _FILLING]
        # "Choose a password" says nothing, and is understood.
        return not rest and (self.took or not is_refusal), demanded

    def _strike(self, pattern: str, act: Callable[["_Clause", re.Match[str]], bool]) -> None:
        at = re.search(pattern, self.said)
        if at is not None and act(self, at):
            self.said = f"{self.said[: at.start()]} {self.said[at.end() :]}"
            self.took = True

    def rule(self, name: str, value: Any) -> bool:
        """Notes a rule; one that was said otherwise before is not sure."""
        if self.found.rules.get(name, value) != value:
            return False
        self.found.rules[name] = value
        return True

    def _kinds(self, is_refusal: bool, demands: bool) -> bool:
        """What the clause says of kinds of character, after all else."""
        said = re.sub(r"\s+", " ", self.said).strip(" ,:.")
        said = re.sub(
            r"\b(?:upper|lower)(?=[- ]?(?:and|or|/|&) ?(?:upper|lower)[- ]?case)",
            r"\g<0>case",
            said,
        )
        said = re.sub(
            r"\bmixed[- ]case(?: letters)?|\bboth cases\b|\bupper ?- ?and lower-?case",
            "lowercase and uppercase",
            said,
        )
        counted = "".join(f"|{shape}" for shape in _KINDS.values())[1:]
        any_kind = rf"(?:alpha-?numeric(?:al)?(?: characters?)?|{counted})"
        joint = r"(?:\s*(?:,|/|&|\+)\s*(?:and |or )?|\s+(?:and|or)\s+)"
        listed = rf"{any_kind}(?:{joint}(?:an? |any )?{any_kind})*"
        is_only = re.search(
            r"\bonly\b|\bmade (?:up )?of\b|\bconsists? (?:solely )?of\b|\bmay (?:contain|include|use|be)\b"
            r"|\bcan (?:contain|include|be)\b|\b(?:are|is) (?:allowed|accepted|permitted)\b|\ballowed\b|\bnothing but\b",
            said,
        )
        is_demand = re.search(
            r"\b(?:contain|contains|containing|include|includes|including|have|has|required?|requires"
            r"|needs?|mix|mixture|combination|with|at least|minimum|each|both)\b",
            said,
        )
        # "Use letters and digits" asks for both; "use 8 to 16 letters and digits" does not.
        is_asked = not self.took and re.search(r"\buse\b", said) is not None
        demanding = False
        said = self._literal(said, is_refusal, is_only is not None)
        # Numbers first: "at least one digit or symbol", "2 numbers".
        shape = (
            rf"(?:at least |minimum (?:of )?|min\.? )?({N})(?: or more)? ({listed})(?: or more)?"
        )
        for at in list(re.finditer(shape, said)):
            count, kinds = _number(at[1]), _kinds_in(at[2])
            if kinds is None or is_refusal:
                continue
            together = " or " in at[2]
            for group in [kinds] if together else [(kind,) for kind in kinds]:
                self.found.least[group] = max(self.found.least.get(group, 0), count)
            said = said.replace(at[0], " ", 1)
            self.took = demanding = True
        for at in list(re.finditer(listed, said)):
            kinds = _kinds_in(at[0])
            if kinds is None:
                continue
            if is_refusal:
                for kind in kinds:
                    self.found.absent |= {"lower", "upper"} if kind == "letter" else {kind}
            elif is_only or not (is_demand or demands or is_asked):
                self.found.only += [*kinds, *(["symbol"] if self.lists_symbols else [])]
            elif " or " in at[0]:
                continue
            else:
                demanding = True
                for kind in kinds:
                    self.found.least.setdefault((kind,), 1)
            said = said.replace(at[0], " ", 1)
            self.took = True
        self.said = said
        return demanding

    def _literal(self, said: str, is_refusal: bool, is_only: bool) -> str:
        """Symbols that are listed one by one, by sign or by name."""
        symbols = ""
        for at in list(re.finditer(f"{_MARK}([0-9]+){_MARK}", said)):
            symbols += self.lists[int(at[1])]
            said = said.replace(at[0], " ", 1)
        for name in sorted(_SYMBOL_NAMES, key=len, reverse=True):
            said, n = re.subn(rf"\b{name}(?:e?s)?\b(?: \(.\))?", " ", said)
            symbols += _SYMBOL_NAMES[name] if n else ""
        if not symbols:
            return said
        symbols = "".join(dict.fromkeys(symbols))
        if is_refusal:
            self.found.excluded += symbols
            said = re.sub(
                rf"\b(?:the )?(?:following )?{_KINDS['symbol']}|\b(?:the )?(?:following )?characters?\b",
                " ",
                said,
            )
        else:
            # Examples are not all that is taken.
            if not re.search(r"\bsuch as\b|\be\.?g\b|\blike\b|\bfor (?:example|instance)\b", said):
                self.found.symbols += symbols
                self.lists_symbols = True
            # Beside other kinds the symbols are one of what a text may be made of; alone they are
            # those of the symbols that are taken.
            if is_only and re.search(rf"\b(?:{_KINDS['letter']}|{_KINDS['digit']})\b", said):
                self.found.only.append("symbol")
            elif re.search(
                r"\ballowed\b|\bonly\b|\bpermitted\b|\baccepted\b|\bmay\b|\bcan\b", said
            ):
                said = re.sub(rf"\b{_KINDS['symbol']}", " ", said)
            said = re.sub(r"\bsuch as\b|\be\.?g\.?|\blike\b|\bfor example\b", " ", said)
        self.took = True
        return said


_REFUSES = (
    r"\b(?:no|not|cannot|can ?not|can't|mustn't|don't|without|never|avoid|exclude|excluding|except"
    r"|neither|nor|prohibited|disallowed|forbidden|free of)\b"
)
_SAME = r"(?:identical|same|repeat(?:ed|ing)|equal|duplicate)"
_ROW = r"(?:in (?:a row|succession|sequence)|consecutive(?:ly)?|one after (?:another|the other)|next to each other|adjacent)"
_UNIT = r"(?:characters?|chars?|letters?|digits?|numbers?|times?|symbols?)"


def _between(clause: _Clause, at: re.Match[str]) -> bool:
    low, high = _number(at[1]), _number(at[2])
    return low <= high and clause.rule("min_length", low) and clause.rule("max_length", high)


def _least(clause: _Clause, at: re.Match[str]) -> bool:
    return clause.rule("min_length", _number(at[1]))


def _beyond(clause: _Clause, at: re.Match[str]) -> bool:
    if re.search(_REFUSES, clause.said[: at.start()]):
        return clause.rule("max_length", _number(at[1]))
    return clause.rule("min_length", _number(at[1]) + 1)


def _most(clause: _Clause, at: re.Match[str]) -> bool:
    return clause.rule("max_length", _number(at[1]))


def _below(clause: _Clause, at: re.Match[str]) -> bool:
    if re.search(_REFUSES, clause.said[: at.start()]):
        return clause.rule("min_length", _number(at[1]))
    return clause.rule("max_length", max(1, _number(at[1]) - 1))


def _exactly(clause: _Clause, at: re.Match[str]) -> bool:
    number = _number(at[1])
    if at.groupdict().get("digits"):
        clause.found.only.append("digit")
    return clause.rule("min_length", number) and clause.rule("max_length", number)


def _run(clause: _Clause, at: re.Match[str]) -> bool:
    return clause.rule("max_identical_run", _number(at["n"]))


def _run_below(clause: _Clause, at: re.Match[str]) -> bool:
    return clause.rule("max_identical_run", max(1, _number(at["n"]) - 1))


def _no_run(clause: _Clause, _at: re.Match[str]) -> bool:
    return clause.rule("max_identical_run", 1)


def _sequence(clause: _Clause, at: re.Match[str]) -> bool:
    return clause.rule("max_sequence_run", _number(at["n"]))


def _sequence_below(clause: _Clause, at: re.Match[str]) -> bool:
    return clause.rule("max_sequence_run", max(1, _number(at["n"]) - 1))


def _sequence_like(clause: _Clause, at: re.Match[str]) -> bool:
    examples = re.findall(r"[a-z]{3,}|[0-9]{3,}", at["like"])
    shortest = min(map(len, examples), default=0)
    return shortest >= 3 and clause.rule("max_sequence_run", shortest - 1)


def _distinct(clause: _Clause, _at: re.Match[str]) -> bool:
    return clause.rule("distinct", True)


def _uses(clause: _Clause, at: re.Match[str]) -> bool:
    number = _number(at["n"])
    return clause.rule("distinct", True) if number == 1 else clause.rule("max_uses", number)


def _remembered(clause: _Clause, at: re.Match[str]) -> bool:
    count = _number(at["n"]) if at["n"] else 1
    known = clause.found.rules.get("history_depth", 0)
    clause.found.rules["history_depth"] = max(known, count)
    return True


def _expires(clause: _Clause, at: re.Match[str]) -> bool:
    days = {"day": 1, "week": 7, "month": 30, "year": 365}[at["unit"]]
    return clause.rule("max_age_days", _number(at["n"] or "one") * days)


def _keeps(clause: _Clause, at: re.Match[str]) -> bool:
    return clause.rule("keeps_first", _number(at["n"]))


def _folds(clause: _Clause, _at: re.Match[str]) -> bool:
    return clause.rule("folds_case", True)


def _known(_clause: _Clause, _at: re.Match[str]) -> bool:
    return True


def _blanks(clause: _Clause, at: re.Match[str]) -> bool:
    said = clause.said
    is_refusal = re.search(_REFUSES, said) is not None
    if not is_refusal and re.search(r"\b(?:may|can|allowed|permitted|accepted|ok)\b", said):
        clause.found.blanks = True
        return True
    return is_refusal


def _kinds_counted(clause: _Clause, at: re.Match[str]) -> bool:
    if not clause.rule("min_classes", _number(at["n"])):
        return False
    kinds = _kinds_in(at["kinds"] or "")
    if at["kinds"] and at["kinds"].strip(" :,") and kinds is None:
        return False
    clause.found.only += kinds or ()
    return True


def _end(which: str) -> Callable[[_Clause, re.Match[str]], bool]:
    def act(clause: _Clause, at: re.Match[str]) -> bool:
        kinds = _kinds_in(at["kinds"])
        if kinds is None:
            return False
        is_refusal = re.search(_REFUSES, clause.said[: at.start()]) is not None
        ends = clause.found.first if which == "first" else clause.found.last
        ends.append((is_refusal, kinds))
        clause.said = re.sub(_REFUSES, lambda m: " " * len(m[0]), clause.said)
        return True

    return act


_LONG = (
    r"(?:\s*(?:characters?|chars?|symbols? long|letters? long))?(?:\s*(?:in (?:length|size)|long))?"
)
_SECRETS = r"(?:passwords?|passphrases?|passcodes?|pins?|ones?|secrets?)"
_LIST = r"(?P<kinds>[a-z, /&+-]*)"

_PATTERNS: tuple[tuple[str, Callable[[_Clause, re.Match[str]], bool]], ...] = (
    (rf"\b(?:re-?use|same as|match|repeat|different from|differ from|one of|any of|not|be)?\s*(?:any of |one of )?(?:the |your )?(?:last|previous|past|former|earlier|most recent)\s+(?:(?P<n>{N})\s+)?(?:used\s+|old\s+|previous\s+)?{_SECRETS}\b(?: (?:again|you (?:have )?used))?", _remembered),
    (rf"\bnot (?:one |any )?(?:of )?(?:the |your )?(?:last|previous) (?P<n>{N})$", _remembered),
    (rf"\bremembers?\s+(?:the\s+|your\s+)?(?:last|previous)\s+(?P<n>{N})\b(?: {_SECRETS})?", _remembered),
    (rf"\b(?:expires?|changed?|renewed?|valid|change it|lasts?|good)\b(?: (?:be|it|again|at least|once|your|password))*\s*(?:every|after|for|in|within|once (?:in|a|every))?\s*(?P<n>{N})?[ -]?(?P<unit>day|week|month|year)s?\b", _expires),
    (rf"\b(?:only )?(?:the )?first (?P<n>{N}) characters?(?: (?:are|will be|is))?(?: (?:used|kept|significant|stored|checked|count|counted|compared|considered|read))?", _keeps),
    (r"\b(?:is |are )?(?:not case[- ]sensitive|case[- ]insensitive)|\bcase (?:does not|doesn't) matter|\bupper and lower case are (?:treated )?(?:the same|alike)", _folds),
    (r"\b(?:is |are )?case[- ]sensitive", _known),
    (rf"\b(?:at least |minimum (?:of )?|any |use )?(?P<n>{N}) (?:or more )?(?:of|out of|from)(?: (?:the|these|following|4|four|5|five|3|three|different))*(?: (?:character ))?(?: ?(?:following|types?|kinds?|categories|classes|groups|sets|character types?|character classes|character sets|criteria|requirements))*(?: of characters?)?\s*:?\s*{_LIST}$", _kinds_counted),
    (rf"\b(?P<n>{N}) (?:different )?(?:kinds?|types?|classes|categories|sets) of characters?(?P<kinds>)|\bat least (?P<n2>{N}) character (?:types?|classes|kinds)", lambda c, at: c.rule("min_classes", _number(at["n"] or at["n2"]))),
    (rf"\b(?:no |not |cannot |never )?(?:more than )(?P<n>{N})\s*(?:consecutive )?(?:{_SAME})(?: consecutive)?\s+{_UNIT}(?: {_ROW})?", _run),
    (rf"\b(?:no )?(?P<n>{N}) or more (?:consecutive )?(?:{_SAME})(?: consecutive)? {_UNIT}(?: {_ROW})?", _run_below),
    (rf"\b(?:no )?(?P<n>{N}) (?:consecutive )?(?:{_SAME})(?: consecutive)? {_UNIT} (?:{_ROW})|\b(?P<n2>{N}) consecutive (?:{_SAME}) {_UNIT}", lambda c, at: bool(re.search(_REFUSES, c.said)) and c.rule("max_identical_run", max(1, _number(at["n"] or at["n2"]) - 1))),
    (rf"\b(?:the )?(?:same|any|a|one|single) {_UNIT}(?: (?:may|can|must|is|be|repeated|used|appear|occur|not))* more than (?P<n>{N})(?: times)? {_ROW}", _run),
    (rf"\brepeat(?:ed|s)?(?: (?:the same|any|a))? {_UNIT} more than (?P<n>{N})(?: times)?(?: {_ROW})", _run),
    (rf"\b(?:at most|up to|maximum(?: of)?|max) (?P<n>{N}) (?:consecutive )?(?:{_SAME})(?: consecutive)? {_UNIT}(?: {_ROW})?", _run),
    (rf"\b(?:no|two|adjacent|consecutive) (?:consecutive |adjacent )(?:{_SAME}) {_UNIT}|\b(?:{_SAME}) {_UNIT} (?:{_ROW})|\bno (?:{_SAME}) consecutive {_UNIT}", _no_run),
    (rf"\b(?:sequences?|sequential|consecutive|ascending)(?: (?:or descending|{_UNIT}|letters or numbers|letters and numbers|numbers or letters|runs?|strings?|of|like))*\s*\(?(?:such as|like|e\.?g\.?|for example|for instance|i\.?e\.?)[ ,:]*(?P<like>[a-z0-9, \"'/]*?)(?:\)|$|(?= (?:are|is)\b))", _sequence_like),
    (rf"\b(?:no |not )?more than (?P<n>{N}) (?:sequential|consecutive|ascending|successive)(?: (?:or descending))? ?{_UNIT}?(?: (?:or|and) {_UNIT})?", _sequence),
    (rf"\b(?P<n>{N}) or more (?:sequential|consecutive|successive) ?{_UNIT}?(?: (?:or|and) {_UNIT})?", _sequence_below),
    (rf"\b(?:sequences?|runs?) (?:longer than|of more than|over) (?P<n>{N})(?: {_UNIT})?", _sequence),
    (r"\b(?:all (?:of the )?characters (?:must |should )?(?:be )?(?:different|unique|distinct)|no character (?:may |can |must )?(?:be |appear |occur )?(?:used |repeated )?(?:more than once|twice)|(?:each|every|any) character (?:may |can |must )?(?:only )?(?:be used |appear |occur )?(?:only )?once)", _distinct),
    (rf"\b(?:no|each|any|every|the same|a) character (?:may |can |must |is |should )?(?:be |not be )?(?:used |appear |occur |repeated |not |allowed )*(?:more than|at most|up to|no more than) (?P<n>{N})(?: times)?", _uses),
    (r"\b(?:start|begin|starts|begins|starting|beginning) with (?P<kinds>(?:an? )?[a-z /,-]+)$|\bfirst character (?:must |should |has to )?(?:be|is) (?P<kinds2>(?:an? )?[a-z /,-]+)$", lambda c, at: _end("first")(c, at) if at["kinds"] else _end_named(c, at, "first")),
    (r"\b(?:end|ends|ending|finish) (?:with|in) (?P<kinds>(?:an? )?[a-z /,-]+)$|\blast character (?:must |should |has to )?(?:be|is) (?P<kinds2>(?:an? )?[a-z /,-]+)$", lambda c, at: _end("last")(c, at) if at["kinds"] else _end_named(c, at, "last")),
    (r"\b(?:start|begin)(?: (?:or|and|nor) end)? with (?:an? )?(?:blanks?|spaces?)|\bend with (?:an? )?(?:blanks?|spaces?)", lambda c, at: re.search(_REFUSES, c.said) is not None),
    (r"\b(?:blanks?|(?:white ?)?spaces?|blank spaces?)\b(?: characters?)?", _blanks),
    (rf"\b(?:between|from)?\s*({N})\s*(?:-|to|and|through|\.\.\.?)\s*({N})\b(?=(?:\s*(?:characters?|chars?|long|in length|symbols? long|alphanumeric|letters?|digits?|numbers?|numeric))|\W*$){_LONG}", _between),
    (rf"\bmin(?:imum|\.)?(?: length)?(?: of|:|=| is)?\s*({N}){_LONG}\s*(?:,|/|and|-|;)?\s*max(?:imum|\.)?(?: length)?(?: of|:|=| is)?\s*({N})\b{_LONG}", _between),
    (rf"\bexactly ({N})(?: (?P<digits>digits?|numbers?)|{_LONG})", _exactly),
    (rf"^(?:(?:an?|the|your|pin|passcode|password|code|it|must|should|has|to|be|is|of|use|enter|choose) )*({_MANY})[- ](?P<digits>digit)s?(?: (?:long|in length))?\b(?=\s*(?:pins?|codes?|numbers?|$))(?: (?:pins?|codes?|numbers?))?", _exactly),
    (rf"^(?:must |should |has to |it must )*be ({N}) (?:characters|chars)(?: (?:long|in length))?$", _exactly),
    (rf"\b(?:no|not) (?:fewer|less|shorter) than ({N})\b{_LONG}", _least),
    (rf"\b(?:no|not) (?:more|longer|greater) than ({N})\b(?=\s*(?:characters?|chars?|long|in length)?\s*(?:long|in length)?\s*$){_LONG}", _most),
    (rf"\b(?:exceed|over) ({N})\b{_LONG}", _beyond),
    (rf"\b(?:longer|more|greater) than ({N})\b(?=\s*(?:characters?|chars?|long|in length|$)){_LONG}", _beyond),
    (rf"\b(?:shorter|less|fewer) than ({N})\b(?=\s*(?:characters?|chars?|long|in length|$)){_LONG}", _below),
    (rf"\b(?:at least|minimum(?: length)?(?: of| is|:)?|min\.?(?: length)?(?: of|:)?|a minimum of|length at least|use|have|contain)\s*({N})\s*(?:or more )?(?:characters?|chars?)\b(?: or more| minimum)?(?:\s*(?:in length|long|in total))?", _least),
    (rf"\b(?:at least|minimum(?: length)?(?: of| is|:)?|min\.?(?: length)?(?: of|:)?|a minimum of)\s*({N})(?=\s*(?:long|in length|$))(?: long| in length)?", _least),
    (rf"\b({N})\s*(?:\+|or more|plus)\s*(?:characters?|chars?)\b(?: long| in length)?", _least),
    (rf"\b({N})\s*(?:characters?|chars?)(?: long| in length)? (?:or (?:more|longer)|minimum|min\b\.?|at least|and up|and above)", _least),
    (rf"\b(?:at most|maximum(?: length)?(?: of| is|:)?|max\.?(?: length)?(?: of|:)?|a maximum of|up to)\s*({N})\s*(?:characters?|chars?)\b(?:\s*(?:in length|long|in total))?", _most),
    (rf"\b(?:at most|maximum(?: length)?(?: of| is|:)?|max\.?(?: length)?(?: of|:)?|a maximum of|up to)\s*({N})(?=\s*(?:long|in length|$))(?: long| in length)?", _most),
    (rf"\b({N})\s*(?:characters?|chars?)(?: long| in length)? (?:or (?:less|fewer|shorter)|maximum|max\b\.?|at most|tops)", _most),
)  # fmt: skip


def _end_named(clause: _Clause, at: re.Match[str], which: str) -> bool:
    kinds = _kinds_in(at["kinds2"])
    if kinds is None:
        return False
    (clause.found.first if which == "first" else clause.found.last).append((False, kinds))
    return True


def _document(found: _Found, unsure: list[str]) -> dict[str, Any]:
    document: dict[str, Any] = {"min_length": 1, "max_length": 64, **found.rules}
    document["min_length"] = min(document["min_length"], LENGTH_LIMIT)
    if "max_length" not in found.rules:
        document["max_length"] = max(document["max_length"], document["min_length"])
    usual = {**STANDARD_CLASSES, "symbol": _symbols(found)}
    least = _apart(found, unsure)
    named = {single for kind in found.only for single in _singles(kind)}
    demanded = {single for group in least for kind in group for single in _singles(kind)}
    allowed = {
        name
        for name in usual
        if name not in found.absent and (not named or name in named or name in demanded)
    }
    classes: list[dict[str, Any]] = []
    for group, count in least.items():
        singles = [s for kind in group for s in _singles(kind) if s in allowed]
        characters = "".join(usual[s] for s in singles)
        if characters:
            name = group[0] if len(group) == 1 else " or ".join(group)
            classes.append({"name": name, "characters": characters, "minimum": count})
            allowed -= set(singles)
    grouped = document.get("min_classes") and "letter" in found.only and not demanded
    if grouped and {"lower", "upper"} <= allowed:
        classes.append({"name": "letter", "characters": LOWER + UPPER, "minimum": 0})
        allowed -= {"lower", "upper"}
    classes += [
        {"name": name, "characters": usual[name], "minimum": 0}
        for name in usual
        if name in allowed and usual[name]
    ]
    order = ["letter", *STANDARD_CLASSES]
    classes.sort(key=lambda c: order.index(c["name"]) if c["name"] in order else len(order))
    if found.blanks:
        classes.append({"name": "blank", "characters": " ", "minimum": 0})
    alphabet = "".join(c["characters"] for c in classes)
    if found.excluded:
        document["excluded"] = "".join(c for c in dict.fromkeys(found.excluded) if c in alphabet)
    for key, ends in (("first_from", found.first), ("last_from", found.last)):
        if ends:
            document[key] = _at_end(ends, alphabet)
    document["classes"] = classes
    return document


def _symbols(found: _Found) -> str:
    return "".join(c for c in SYMBOLS if c in found.symbols) if found.symbols else SYMBOLS


def _singles(kind: str) -> tuple[str, ...]:
    return ("lower", "upper") if kind == "letter" else (kind,)


def _apart(found: _Found, unsure: list[str]) -> dict[tuple[str, ...], int]:
    """The demands that do not overlap; of those that do the narrower ones are sure."""
    kept: dict[tuple[str, ...], int] = {}
    taken: set[str] = set()
    for group in sorted(found.least, key=lambda g: sum(len(_singles(k)) for k in g)):
        singles = {s for kind in group for s in _singles(kind)}
        if singles & taken:
            met = sum(n for g, n in kept.items() if {s for k in g for s in _singles(k)} <= singles)
            if met < found.least[group]:
                unsure.append(f"at least {found.least[group]} of {' or '.join(group)}")
            continue
        taken |= singles
        kept[group] = found.least[group]
    return kept


def _at_end(ends: list[tuple[bool, tuple[str, ...]]], alphabet: str) -> str:
    usual = {**STANDARD_CLASSES, "digit": DIGITS}
    stays = alphabet
    for is_refusal, kinds in ends:
        of_kind = {c for kind in kinds for single in _singles(kind) for c in usual[single]}
        stays = "".join(c for c in stays if (c in of_kind) != is_refusal)
    return stays
