"""What is left of a check after an act is what a check finds then."""

import random
import string
from dataclasses import replace
from datetime import timedelta
from typing import Any

import pytest

from newknot.core.audit import FindingKind
from newknot.core.audit.order import in_order
from newknot.core.login import Importance, Origin, SecondFactor, SecretField
from newknot.core.policy import SitePolicy
from newknot.core.secret import Secret
from newknot.store.logins import get_card, get_secrets, put_card, put_secrets
from newknot.store.vault import Vault
from newknot.usecases.check.checks import CheckMemory, run_check
from newknot.usecases.check.standing import Standing, standing
from newknot.usecases.logins.logins import LoginDraft, NewSecret, add_login, delete_login
from newknot.usecases.policies import save_policy
from newknot.usecases.progress import Progress
from tests.store.samples import AT

ANY = {"name": "any", "characters": "".join(map(chr, range(32, 127))), "minimum": 0}
RULES = {"min_length": 4, "max_length": 40, "max_age_days": 90}
PLAIN = ANY | {"characters": string.ascii_letters + string.digits}
LENIENT = SitePolicy.from_dict(RULES | {"classes": [ANY], "max_age_days": 300})
STRICT = SitePolicy.from_dict(RULES | {"classes": [PLAIN]})
ONE, TWO = "Kv7!rope-9wQ-plank2", "vT2-9qLw!4xPk-7rB"
TEXTS = (*[ONE] * 4, *[TWO] * 3, "gaffer tape 41", "gaffer tape 42", "gaffer tape 43!", "mitten")
TEXTS += ("gaffer tape 43!", "Kv7!rope-another", "over wet")

CARD_KINDS = {FindingKind.PLAIN_HTTP, FindingKind.NO_SECOND_FACTOR, FindingKind.OVERDUE}
CARD_KINDS |= {FindingKind.OFF_POLICY}


def found(all_of_them: Standing) -> dict[tuple[FindingKind, str], tuple[str, str]]:
    return {(f.kind, f.login_id): (f.evidence, f.why) for f in all_of_them.to_do}


@pytest.mark.parametrize("seed", range(6))
def test_after_each_act_what_is_left_is_what_a_check_finds(vault: Vault, seed: int) -> None:
    chance, now, memory = random.Random(seed), AT, CheckMemory()
    where: dict[str, Any] = {"domains": ("slate.example",), "name": "Slate", "source": "typed"}
    where["policy_id"] = save_policy(
        vault, **where, policy_id=None, policy=STRICT, now=now, offers_second_factor=True
    ).policy_id
    ids: list[str] = []
    texts: dict[str, str] = {}
    for n, own in enumerate(NewSecret(Secret(text), Origin("own")) for text in TEXTS):
        host = f"h{n % 5}.slate.example" if n % 4 else f"site-{n}.example"
        pins = (("PIN", Secret(str(4417 + n))),) if n % 3 == 0 else ()
        draft = LoginDraft(f"Site {n % 9}", f"u{n}", f"https://{host}", secret_fields=pins)
        ids.append(add_login(vault, draft, own, now=now).login_id)
        texts[ids[-1]] = TEXTS[n]
        now += timedelta(days=20)

    def card(login_id: str, **changed: object) -> None:
        with vault.transaction() as tx:
            # What is merged may be of a day before the check, and so may the clock.
            at = chance.choice((now, AT - timedelta(minutes=chance.randint(1, 10**5))))
            held = replace(get_card(vault, login_id), changed_at=at)
            put_card(tx, replace(held, **changed))  # type: ignore[arg-type]

    run_check(vault, lists=(), progress=Progress(), now=now, memory=memory)
    for _ in range(14):
        now += timedelta(hours=chance.choice((5, 5, 90)))
        login_id = chance.choice(ids)
        act = chance.choice(
            ("renew", "renew", "field", "address", "card", "rename", "bin", "policy")
        )
        text = "".join(chance.choices("bcdfghjkmnpqrstvwxz23456789", k=28))
        # Off a policy as the one before it may have been.
        text = f"{text[:14]}{chance.choice((' ', ''))}{text[14:]}"
        if act == "renew":
            # What is merged or brought in may be in use since before the check.
            ago = timedelta(minutes=chance.randint(1, 10**5))
            card(login_id, secret_since_at=chance.choice((now, AT - ago)))
            with vault.transaction() as tx:
                put_secrets(
                    tx, login_id, replace(get_secrets(vault, login_id), secret=Secret(text))
                )
        elif act == "field":
            card(login_id, secret_field_names=("PIN",))
            pin = SecretField("PIN", Secret(f"{text}{now}"), f"{now}")
            with vault.transaction() as tx:
                put_secrets(tx, login_id, replace(get_secrets(vault, login_id), fields=(pin,)))
        elif act == "address":
            scheme, _, host = get_card(vault, login_id).address.partition("://")
            card(login_id, address=f"{'http' if scheme == 'https' else 'https'}://{host}")
        elif act == "card":
            factor = chance.choice(list(SecondFactor))
            day = (now + timedelta(days=chance.choice((-1, 3)))).date()
            card(login_id, expires_on=chance.choice((None, day)), second_factor=factor)
            reset = chance.choice((None, chance.choice(ids)))
            # One that resets whom it shares a secret with pulls no more down than before.
            twin = next((o for o in ids if texts[o] == texts[login_id] and o != login_id), None)
            reset = twin if chance.random() < 0.5 else reset
            weight = chance.choice((Importance.NORMAL, *Importance))
            card(login_id, importance=weight, resets_by=reset)
        elif act == "rename":
            card(login_id, title=f"{get_card(vault, login_id).title}, {now:%H}")
        elif act == "policy":
            policy, offers = chance.choice((LENIENT, STRICT)), chance.random() < 0.5
            # One that is merged may be of a day before the check.
            at = chance.choice((now, AT - timedelta(minutes=chance.randint(1, 10**6))))
            save_policy(vault, **where, policy=policy, now=at, offers_second_factor=offers)
        else:
            delete_login(vault, login_id, now=now)
            ids.remove(login_id)
        left = standing(vault, now=now)
        # How strong another secret is the check tells alone.
        of_card = (f for f in left.to_do if f.kind in CARD_KINDS and f.login_id == login_id)
        assert act != "renew" or all(f.guess_number_log10 is None for f in of_card)
        assert list(left.to_do) == in_order(left.to_do)
        assert left.policies_changed if act == "policy" else left.changed_count or act == "bin"
        if chance.random() < 0.5:
            run_check(vault, lists=(), progress=Progress(), now=now, memory=memory)
            anew = standing(vault, now=now)
            assert found(left).items() <= found(anew).items() and anew.changed_count == 0, act
            assert found(anew).keys() <= found(left).keys(), act
