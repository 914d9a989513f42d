"""Logins of any content, as they can lie in a vault."""

from datetime import UTC, date, datetime

from hypothesis import strategies as st

from newknot.core.login import Importance, PlainField, SecretField
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


@st.composite
def logins(draw: st.DrawFn) -> PortableLogin:
    """One login as a vault gives it out."""
    names = draw(st.lists(NAME, unique=True, max_size=3))
    moment = datetime(2026, 3, 4, 5, 6, 7, tzinfo=UTC)
    return PortableLogin(
        title=draw(LINE.filter(bool)),
        user_name=draw(LINE),
        address=draw(st.sampled_from(["", "https://gantry.example/x?y=1,2", "lumen.example"])),
        secret=Secret(draw(SECRET)),
        notes=draw(LINE),
        folder=draw(st.sampled_from(["", "Work", "Work, old"])),
        tags=tuple(draw(st.lists(st.sampled_from(["a b", "mail", "=x"]), unique=True))),
        fields=tuple(
            PlainField(name, draw(LINE.filter(bool))) for name in draw(st.lists(NAME, max_size=3))
        ),
        secret_fields=tuple(SecretField(name, Secret(draw(SECRET.filter(bool)))) for name in names),
        code_key=Secret(draw(st.sampled_from(["", KEY]))),
        owner=draw(st.sampled_from(["", "Ilse"])),
        importance=draw(st.sampled_from(list(Importance))),
        expires_on=draw(st.none() | st.dates(date(2000, 1, 1), date(2100, 1, 1))),
        created_at=moment,
        changed_at=moment,
    )
