"""A program of its own: reads foreign HTML from its input and prints its forms as JSON.

It runs without keys, under limits of time and memory, because pages may be made to harm a parser.
Standard library alone, so that it starts at once.
"""

import json
import re
import resource
import sys
from html.parser import HTMLParser

CPU_S = 4
MEMORY_BYTES = 512 << 20
INPUT_MOST = 1 << 20
FORMS_MOST, INPUTS_MOST, SAID_MOST, DEPTH_MOST = 40, 400, 20, 500
_KEPT = (
    *("name", "type", "autocomplete", "value", "minlength", "maxlength", "passwordrules"),
    *("pattern", "required", "checked", "title"),
)
_SAYING = ("alert", "status")
_VOID = frozenset(
    ("area", "base", "br", "col", "embed", "hr", "img", "input", "link", "meta", "source", "track")
)
_UNSEEN = re.compile(
    r"display:none|visibility:(?:hidden|collapse)|opacity:0(?![.\d]*[1-9])|(?:left|top|right|bottom|"
    r"text-indent|margin-left):-\d{3,}|(?:width|height|font-size):0(?![.\d]*[1-9])|clip:rect\(0"
)
"""What a style says that leaves nothing to be seen."""


class _Forms(HTMLParser):
    def __init__(self) -> None:
        super().__init__(convert_charrefs=True)
        self.forms: list[dict[str, object]] = []
        self.said: list[str] = []
        self._open: dict[str, object] | None = None
        self._by_id: dict[str, dict[str, object]] = {}
        self._saying: list[str] = []
        # Open elements, each with whether what is in it is unseen, switched off, or no part at all.
        self._within: list[tuple[str, bool, bool, bool]] = []

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        given = {name: value if value is not None else "" for name, value in attrs}
        if given.get("role") in _SAYING and len(self.said) < SAID_MOST:
            self._saying.append(tag)
            self.said.append("")
        _, unseen, off, apart = self._within[-1] if self._within else ("", False, False, False)
        style = "".join(given.get("style", "").lower().split())
        unseen = unseen or "hidden" in given or "inert" in given or bool(_UNSEEN.search(style))
        if tag not in _VOID and len(self._within) < DEPTH_MOST:
            fieldset_off = tag == "fieldset" and "disabled" in given
            no_part = apart or tag in ("template", "noscript")
            self._within.append((tag, unseen, off or fieldset_off, no_part))
        if apart:
            return
        if tag == "form" and len(self.forms) < FORMS_MOST:
            self._open = {
                "action": given.get("action", ""),
                "method": given.get("method", "get").lower(),
                "enctype": given.get("enctype", ""),
                "inputs": [],
            }
            self.forms.append(self._open)
            if "id" in given:
                self._by_id[given["id"]] = self._open
        elif tag in ("input", "button", "select", "textarea"):
            form = self._by_id.get(given["form"]) if "form" in given else self._open
            if form is not None:
                inputs = form["inputs"]
                assert isinstance(inputs, list)
                if len(inputs) < INPUTS_MOST:
                    kept: dict[str, object] = {k: given[k] for k in _KEPT if k in given}
                    kind = given.get("type", "submit" if tag == "button" else "text").lower()
                    kept["type"] = kind if tag in ("input", "button") else tag
                    kept["required"] = "required" in given
                    kept["checked"] = "checked" in given
                    kept["unseen"] = unseen or kept["type"] == "hidden"
                    kept["off"] = off or "disabled" in given
                    inputs.append(kept)

    def handle_endtag(self, tag: str) -> None:
        for at in range(len(self._within) - 1, -1, -1):
            if self._within[at][0] == tag:
                del self._within[at:]
                break
        if tag == "form":
            self._open = None
        if self._saying and self._saying[-1] == tag:
            self._saying.pop()

    def handle_data(self, data: str) -> None:
        if self._saying:
            self.said[-1] = (self.said[-1] + data)[:500]


def main() -> None:
    """Once, then ends."""
    resource.setrlimit(resource.RLIMIT_CPU, (CPU_S, CPU_S))
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_BYTES, MEMORY_BYTES))
    reader = _Forms()
    reader.feed(sys.stdin.buffer.read(INPUT_MOST).decode("utf-8", "replace"))
    json.dump(
        {"forms": reader.forms, "said": [" ".join(s.split()) for s in reader.said]}, sys.stdout
    )


if __name__ == "__main__":
    main()
