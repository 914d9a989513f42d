"""Half-typed forms: kept sealed a moment after the last key, and there again after a lock."""

import json
import re
from datetime import datetime, timedelta
from typing import Any

from newknot.core.errors import FieldInvalid
from newknot.store.drafts import FormDraft, get_drafts, put_drafts
from newknot.store.manifest import Label
from newknot.store.safeguards import get_safeguards, put_safeguards
from newknot.store.vault import Vault

KEPT_FOR = timedelta(days=7)
DRAFTS_MOST, CONTENT_MOST = 20, 200_000
_FORM = re.compile(r"[a-z][a-z0-9-]{0,79}")


def keep_draft(vault: Vault, form: str, content: Any, *, now: datetime) -> None:
    """What a form holds now, in place of what it held. Raises `FieldInvalid`."""
    if not _FORM.fullmatch(form):
        raise FieldInvalid("form", "is no name of a form")
    try:
        length = len(json.dumps(content))
    except RecursionError:
        raise FieldInvalid("content", "is nested too deep") from None
    if length > CONTENT_MOST:
        raise FieldInvalid("content", f"is longer than {CONTENT_MOST:,} characters")
    with vault.transaction() as tx:
        if not vault.ids(Label.SETTINGS):
            put_safeguards(tx, vault, get_safeguards(vault))
        # In the order in which they came, and none dropped by its date: the clock may be wrong.
        drafts = get_drafts(vault)
        drafts.pop(form, None)
        drafts[form] = FormDraft(content, now)
        put_drafts(tx, vault, dict(list(drafts.items())[-DRAFTS_MOST:]))


def draft_of(vault: Vault, form: str, *, now: datetime) -> FormDraft | None:
    """None where there is none, or it is older than a week."""
    return _fresh(vault, now).get(form)


def forget_draft(vault: Vault, form: str) -> None:
    """Saved or discarded: it is gone. None is no error."""
    drafts = get_drafts(vault)
    if form in drafts:
        del drafts[form]
        with vault.transaction() as tx:
            put_drafts(tx, vault, drafts)


def drop_old_drafts(vault: Vault, *, now: datetime) -> None:
    """Those past their week leave the file."""
    drafts = get_drafts(vault)
    fresh = _fresh(vault, now)
    if len(fresh) < len(drafts):
        with vault.transaction() as tx:
            put_drafts(tx, vault, fresh)


def _fresh(vault: Vault, now: datetime) -> dict[str, FormDraft]:
    return {f: d for f, d in get_drafts(vault).items() if now - d.saved_at <= KEPT_FOR}
