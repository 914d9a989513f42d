"""Forms of a site, told by the `autocomplete` tokens of HTML (HTML Living Standard, autofill)."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from newknot.core.errors import NewKnotError

USER_NAME, CURRENT, NEW, CODE = "username", "current-password", "new-password", "one-time-code"
_MEANT = {
    USER_NAME: "the user name",
    CURRENT: "the current secret",
    NEW: "the new secret",
    CODE: "the code",
}
_LEFT_OUT = frozenset({"submit", "button", "reset", "image", "file"})
_TICKED = frozenset({"checkbox", "radio"})


class FormNotUnderstood(NewKnotError):
    """A page without the form that was looked for, or one that asks for more. data: reason."""


@dataclass(frozen=True, slots=True)
class SiteInput:
    """One field. token: its last `autocomplete` token, empty where it has none. unseen: whether
    nobody can see it. off: whether a browser leaves it out.
    """

    name: str
    kind: str
    token: str
    value: str
    required: bool
    checked: bool
    rules: Mapping[str, str]
    unseen: bool = False
    off: bool = False


@dataclass(frozen=True, slots=True)
class SiteForm:
    """A form: where and how it is sent, and its fields."""

    action: str
    method: str
    enctype: str
    inputs: tuple[SiteInput, ...]

    def has(self, token: str) -> bool:
        """Whether a field has this token."""
        return any(one.token == token and not one.off for one in self.inputs)

    def filled(self, values: Mapping[str, str]) -> list[tuple[str, str]]:
        """The fields as a browser would send them, with values by token.

        Raises `FormNotUnderstood` where the form would put them into an address, sends them in
        another way than is known here, or needs a field that nothing is known for.
        """
        if self.method != "post":
            raise FormNotUnderstood(reason="has a form that would put the secret into the address")
        if self.enctype not in ("", "application/x-www-form-urlencoded"):
            raise FormNotUnderstood(reason=f"has a form that is sent as {self.enctype[:40]}")
        self._require_told_apart(values)
        sent: list[tuple[str, str]] = []
        pressed = False
        for one in self.inputs:
            if one.off:
                continue
            value = values.get(one.token, one.value)
            if one.kind == "submit" and one.name and not pressed:
                pressed = True
                sent.append((one.name, one.value))
            if one.kind in _LEFT_OUT or not one.name:
                continue
            if one.kind in _TICKED:
                if one.checked:
                    sent.append((one.name, one.value or "on"))
                elif one.required and one.kind == "checkbox":
                    raise FormNotUnderstood(reason="has a form that asks for a consent")
                continue
            if one.required and not value and not (one.token == CODE and CODE in values):
                raise FormNotUnderstood(reason=f"has a form that asks for “{one.name[:40]}”")
            sent.append((one.name, value))
        return sent

    def _require_told_apart(self, values: Mapping[str, str]) -> None:
        """Each value has one field that it is meant for, and a secret one that can be seen; the new
        one may be asked for twice.
        """
        for token, says in _MEANT.items():
            fields = [one for one in self.inputs if one.token == token and not one.off]
            if token not in values or not fields:
                continue
            if token != USER_NAME and any(one.unseen for one in fields):
                raise FormNotUnderstood(reason=f"has a field for {says} that nobody can see")
            if len(fields) > (2 if token == NEW else 1):
                raise FormNotUnderstood(reason=f"has {len(fields)} fields for {says}")

    @property
    def rules_text(self) -> str:
        """The attributes of its first field for a new password, as an input element."""
        field = next(one for one in self.inputs if one.token == NEW)
        attributes = "".join(
            f' {name}="{value.replace(chr(34), "&quot;")}"' for name, value in field.rules.items()
        )
        return f"<input{attributes}>"


@dataclass(frozen=True, slots=True)
class SitePage:
    """The forms of a page, and what it says in its live regions (roles alert and status)."""

    forms: tuple[SiteForm, ...]
    said: tuple[str, ...]

    @staticmethod
    def of(document: Mapping[str, Any]) -> "SitePage":
        """Of what the reader of forms printed."""
        return SitePage(
            tuple(_form(one) for one in document["forms"]),
            tuple(text for text in document["said"] if text),
        )

    @property
    def change_form(self) -> SiteForm | None:
        """The form with the current and a new password; without the current one it is a sign-up."""
        return _first(self.forms, lambda form: form.has(NEW) and form.has(CURRENT))

    @property
    def sign_in_form(self) -> SiteForm | None:
        """The form with a current password and no new one."""
        return _first(self.forms, lambda form: form.has(CURRENT) and not form.has(NEW))

    @property
    def user_name_form(self) -> SiteForm | None:
        """The first of two steps: a user name alone."""
        passwords = (CURRENT, NEW, CODE)
        return _first(
            self.forms, lambda form: form.has(USER_NAME) and not any(map(form.has, passwords))
        )

    @property
    def code_form(self) -> SiteForm | None:
        """The form with a one-time code and no password."""
        return _first(self.forms, lambda form: form.has(CODE) and not form.has(NEW))


def _first(forms: Sequence[SiteForm], fits: Any) -> SiteForm | None:
    return next((form for form in forms if fits(form)), None)


def _form(document: Mapping[str, Any]) -> SiteForm:
    return SiteForm(
        document["action"],
        document["method"],
        document["enctype"].lower(),
        tuple(_input(one) for one in document["inputs"]),
    )


def _input(document: Mapping[str, Any]) -> SiteInput:
    tokens = [t for t in document.get("autocomplete", "").lower().split() if t != "webauthn"]
    rules = ("minlength", "maxlength", "passwordrules", "pattern", "title")
    return SiteInput(
        name=document.get("name", ""),
        kind=document["type"],
        token=tokens[-1] if tokens else "",
        value=document.get("value", ""),
        required=document["required"],
        checked=document["checked"],
        unseen=document["unseen"],
        off=document["off"],
        rules={name: document[name] for name in rules if document.get(name)},
    )
