"""Logins of any content, as they can lie in a vault."""

from datetime import UTC, date, datetime

from hypothesis import strategies as st

from newknot.core.login import (
    BackupCode,
    Importance,
    PlainField,
    SecondFactor,
    SecretField,
)
from newknot.core.secret import Secret
from newknot.exchange.portable_login import PortableLogin

_TEXT = st.text(st.characters(codec="utf-8", exclude_characters="\0"), max_size=30)
_AWKWARD = st.sampled_from(
    ["=1+2", "@x|y", "-5", "'=a", "''", "'", '"', "a,b", "a\nb", "a\r\nb", "|\\|", "+\\|", " x "]
)
SECRET = _TEXT | _AWKWARD
LINE = SECRET.map(str.strip)
NAME = st.sampled_from(["PIN", "Answer: first theatre", "field: x", "=name", "Zoë"])
KEY = (
    "otpauth://totp/Keylight:ilse?secret=JBSWY3DPEHPK3PXP&issuer=Keylight&algorithm=SHA256&digits=8"
)

MOMENT = st.datetimes(datetime(1971, 1, 1), datetime(2026, 3, 4), timezones=st.just(UTC))
TAGS = ["a b", "mail", "=x", "stage, left", 'the "old" one', "semi;colon"]
CODE = st.sampled_from(["aaaa-1111", "=bb 22", "+cc", "'dd"])


@st.composite
def logins(draw: st.DrawFn) -> PortableLogin:
    """One login as a vault gives it out."""
    names = draw(st.lists(NAME, unique=True, max_size=3))
    moments = [draw(MOMENT) for _ in range(3)]
    otp = draw(st.sampled_from(["", KEY]))
    return PortableLogin(
        title=draw(LINE.filter(bool)),
        user_name=draw(LINE),
        address=draw(st.sampled_from(["", "https://gantry.example/x?y=1,2", "lumen.example"])),
        secret=Secret(draw(SECRET)),
        notes=draw(LINE),
        folder=draw(st.sampled_from(["", "Work", "Work, old"])),
        tags=tuple(draw(st.lists(st.sampled_from(TAGS), unique=True))),
        fields=tuple(
            PlainField(name, draw(LINE.filter(bool))) for name in draw(st.lists(NAME, max_size=3))
        ),
        secret_fields=tuple(SecretField(name, Secret(draw(SECRET.filter(bool)))) for name in names),
        code_key=Secret(otp),
        owner=draw(st.sampled_from(["", "Ilse"])),
        importance=draw(st.sampled_from(list(Importance))),
        expires_on=draw(st.none() | st.dates(date(2000, 1, 1), date(2100, 1, 1))),
        created_at=moments[0],
        changed_at=moments[1],
        secret_since_at=moments[2],
        second_factor=draw(st.sampled_from(list(SecondFactor))),
        driven=draw(st.booleans()),
        backup_codes=tuple(
            BackupCode(Secret(code), draw(st.none() | MOMENT))
            for code in draw(st.lists(CODE, unique=True, max_size=3))
        ),
        collections=tuple(draw(st.lists(st.sampled_from(["Old, all", "Hire"]), unique=True))),
    )
