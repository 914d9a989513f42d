"""Measuring a text with all that is known: own details, the login's names, the breach corpus."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from newknot.core.audit.audit import login_context
from newknot.core.audit.breached import CorpusLookup, secret_digest
from newknot.core.own_details import OwnDetails
from newknot.core.policy.kept_text import kept_says, kept_text
from newknot.core.strength import Advice, Measure, advice, measure
from newknot.core.strength.budgets import AttackBudget, with_rates
from newknot.store.logins import get_card, get_secrets
from newknot.store.own_details import get_own_details, put_own_details
from newknot.store.safeguards import get_safeguards
from newknot.store.vault import Vault
from newknot.usecases.check.corpora import occurrences
from newknot.usecases.policies import policy_for

__all__ = ["change_own_details", "get_own_details", "login_context"]


@dataclass(frozen=True, slots=True)
class FullMeasure:
    """A measure, how often the corpora hold the text (None: none was asked), and advice."""

    measure: Measure
    breached_count: int | None
    advice: tuple[Advice, ...]


@dataclass(frozen=True, slots=True)
class LoginMeasure:
    """The measure of a login's secret. site_keeps: what its site does to it, in words."""

    full: FullMeasure
    site_keeps: str


def full_measure(
    text: str, *, vault: Vault | None, corpora: Sequence[CorpusLookup], context: Sequence[str]
) -> FullMeasure:
    """vault None: before there is one. context: what the site knows, beside the own details."""
    known = list(context)
    if vault is not None:
        known += get_own_details(vault).lines
        corpora = corpora if get_safeguards(vault).corpus_used else ()
    found = measure(text, known)
    count = occurrences(corpora, secret_digest(text))
    return FullMeasure(found, count, tuple(advice(text, known, found)))


def login_measure(vault: Vault, login_id: str, *, corpora: Sequence[CorpusLookup]) -> LoginMeasure:
    """The measure of what its site keeps of a login's secret. Raises `RecordMissing`."""
    card = get_card(vault, login_id)
    context = login_context(title=card.title, user_name=card.user_name, address=card.address)
    text = get_secrets(vault, login_id).secret.reveal()
    named = policy_for(vault, card.address)
    policy = named.policy if named is not None else None
    kept_of = kept_text(policy, text)
    found = full_measure(kept_of, vault=vault, corpora=corpora, context=context)
    if kept_of != text:
        asked = corpora if get_safeguards(vault).corpus_used else ()
        found = replace(found, breached_count=occurrences(asked, secret_digest(text)))
    return LoginMeasure(found, kept_says(policy, text))


def own_budgets(vault: Vault) -> tuple[AttackBudget, ...]:
    """The attack budgets, at the user's own rates where set."""
    return with_rates(get_own_details(vault).rates)


def change_own_details(vault: Vault, details: OwnDetails) -> None:
    """Writes the details. Measures kept so far no longer fit and are taken anew."""
    with vault.transaction() as tx:
        put_own_details(tx, vault, details)
