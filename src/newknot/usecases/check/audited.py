"""A login as the audit wants it."""

from dataclasses import replace

from newknot.core.audit.audited import AuditedLogin
from newknot.core.login import LoginCard, LoginSecrets, Origin
from newknot.core.policy import NamedPolicy
from newknot.core.rotation.due import own_day


def audited(
    card: LoginCard,
    held: LoginSecrets,
    named: NamedPolicy | None = None,
    passphrase_likeness: str = "",
) -> AuditedLogin:
    """A login as the audit wants it."""
    own = AuditedLogin(
        login_id=card.login_id,
        title=card.title,
        user_name=card.user_name,
        address=card.address,
        importance=card.importance,
        expires_on=own_day(card),
        max_age_days=named.policy.max_age_days if named is not None else None,
        secret=held.secret if len(held.secret) else None,
        origin=held.origin,
        secret_since_at=card.secret_since_at,
        resets_by=card.resets_by,
        policy=named.policy if named is not None else None,
        policy_name=named.name if named is not None else "",
        passphrase_likeness=passphrase_likeness,
        second_factor=card.second_factor,
        offers_second_factor=named.offers_second_factor if named is not None else False,
    )
    fields = tuple(
        # A site's rules are for the password alone.
        replace(
            own,
            field=one.name,
            field_id=one.secret_id,
            secret=one.value,
            origin=Origin("own"),
            policy=None,
        )
        for one in held.fields
        if len(one.value)
    )
    return replace(own, fields=fields) if fields else own
