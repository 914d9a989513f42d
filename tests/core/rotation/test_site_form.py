"""Forms told by their tokens, and filled as a browser would."""

import json
import subprocess
import sys
from pathlib import Path

import pytest

from newknot.core.rotation.site_form import (
    CODE,
    CURRENT,
    NEW,
    USER_NAME,
    FormNotUnderstood,
    SitePage,
)
from newknot.outside import form_reader
from tests.support.vectors import examples


def read(html: str) -> SitePage:
    command = [sys.executable, "-I", "-S", str(Path(form_reader.__file__))]
    done = subprocess.run(command, input=html.encode(), capture_output=True, check=True)
    return SitePage.of(json.loads(done.stdout))


def test_each_kind_of_form_is_found_among_others() -> None:
    page = read(
        """<form><input name=q></form>
        <form method=post><input name=u autocomplete="shipping username"></form>
        <form method=post><input name=u autocomplete=username>
          <input name=p type=password autocomplete="current-password webauthn"></form>
        <form method=post><input name=c autocomplete="ONE-TIME-CODE"></form>
        <form method=post><input name=n autocomplete=new-password></form>
        <form method=post><input name=o autocomplete=current-password>
          <input name=n autocomplete=new-password minlength=9 title='a "b"'></form>
        <p role=alert>Two <b>words</b> &amp; more</p>"""
    )
    assert page.user_name_form is page.forms[1]
    assert page.sign_in_form is page.forms[2]
    assert page.code_form is page.forms[3]
    assert page.change_form is page.forms[5]
    assert page.said == ("Two words & more",)
    assert page.forms[5].rules_text == '<input minlength="9" title="a &quot;b&quot;">'


def test_it_is_filled_as_a_browser_would_fill_it() -> None:
    (form,) = read(
        """<form method=POST action=/x><input type=hidden name=t value=1><input name=u value=me
        autocomplete=username><input name=o autocomplete=current-password><input name=n
        autocomplete=new-password><input name=m autocomplete=new-password><input type=checkbox
        name=a checked><input type=checkbox name=b><input type=radio name=r value=2 checked>
        <input autocomplete=one-time-code><input type=reset name=z value=z>
        <button name=go value=yes></button><button name=back value=no></button></form>"""
    ).forms
    values = {USER_NAME: "ilse", CURRENT: "old", NEW: "new", CODE: "1"}
    assert form.filled(values) == [
        *(("t", "1"), ("u", "ilse"), ("o", "old"), ("n", "new"), ("m", "new")),
        *(("a", "on"), ("r", "2"), ("go", "yes")),
    ]


@pytest.mark.parametrize(
    "html",
    [
        "<form><input name=p autocomplete=current-password></form>",
        "<form method=post enctype=text/plain><input name=p></form>",
        "<form method=post><input name=pet required></form>",
        "<form method=post><input type=checkbox name=terms required></form>",
    ],
)
def test_what_cannot_be_filled_honestly_is_not(html: str) -> None:
    (form,) = read(html).forms
    with pytest.raises(FormNotUnderstood):
        form.filled({CURRENT: "old"})


@pytest.mark.parametrize("html", ["<!" * 200_000, "<a " * 300_000, "<form>" * 90_000, "\0" * 10**6])
def test_a_page_made_to_harm_ends_in_bounded_time(html: str) -> None:
    command = [sys.executable, "-I", "-S", str(Path(form_reader.__file__))]
    done = subprocess.run(command, input=html.encode(), capture_output=True, timeout=15)
    assert done.returncode != 0 or json.loads(done.stdout)["forms"] is not None


FIELDS = """<input name=u autocomplete=username><input name=o autocomplete=current-password>
<input name=n autocomplete=new-password>"""


@pytest.mark.parametrize(("html", "reason"), examples("forms_not_filled.json"))
def test_what_could_be_meant_otherwise_or_is_not_seen_is_not_filled(html: str, reason: str) -> None:
    (form,) = read(f"<form method=post>{html}</form>").forms
    with pytest.raises(FormNotUnderstood) as refused:
        form.filled({USER_NAME: "ilse", CURRENT: "old", NEW: "new"})
    assert reason in str(refused.value.data["reason"])


def test_what_is_switched_off_or_no_part_of_the_page_is_not_sent() -> None:
    (form,) = read(
        f"""<template><form method=post>{FIELDS}</form></template>
        <form method=post><div style="opacity:0.9; width:0.5em">{FIELDS}</div>
        <input name=x autocomplete=current-password disabled>
        <fieldset disabled><br><input name=y autocomplete=new-password></fieldset>
        <input name=z autocomplete=username type=hidden disabled></form>"""
    ).forms
    sent = form.filled({USER_NAME: "ilse", CURRENT: "old", NEW: "new"})
    assert sent == [("u", "ilse"), ("o", "old"), ("n", "new")]
