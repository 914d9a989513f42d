"""The practice sites' pages, in a plain look of their own."""

from html import escape

from newknot.standins.sites import PracticeSite

STYLE = """
body { font: 16px/1.5 Georgia, serif; margin: 0; background: #fff; color: #111 }
header { background: #2f4a36; color: #fff; padding: 18px 32px }
header a { color: #fff; margin-right: 18px } h1 { font-size: 22px; margin: 0 }
main { padding: 24px 32px; max-width: 420px }
label { display: block; margin: 14px 0 }
input { display: block; width: 100%; padding: 6px; font: inherit }
button { font: inherit; padding: 8px 18px } .said { border: 2px solid #111; padding: 8px 12px }
"""


def page(site: PracticeSite, title: str, body: str, *, said: str = "") -> str:
    """A whole page; `said` stands above its body."""
    note = f'<p class="said" role="status">{escape(said)}</p>' if said else ""
    links = "".join(
        f'<a href="{path}">{name}</a>'
        for path, name in (
            ("/sign-in", "Sign in"),
            ("/sign-up", "Sign up"),
            ("/change-password", "Change password"),
        )
    )
    return (
        f'<!doctype html><html lang="en"><meta charset="utf-8"><title>{escape(title)} – '
        f"{escape(site.title)}</title><style>{STYLE}</style><header><h1>{escape(site.title)}</h1>"
        f"<p>{escape(site.line)}</p>{links}</header><main><h2>{escape(title)}</h2>{note}{body}</main>"
        "</html>"
    )


def sign_up_form(site: PracticeSite) -> str:
    """User name and a new password, twice."""
    return (
        '<form method="post" action="/sign-up">'
        + _field("user_name", "User name", "text", "username")
        + _new_fields(site)
        + "<button>Sign up</button></form>"
    )


def sign_in_form(site: PracticeSite) -> str:
    """User name and password."""
    return (
        '<form method="post" action="/sign-in">'
        + _field("user_name", "User name", "text", "username")
        + _field("password", "Password", "password", "current-password", _pasting(site))
        + "<button>Sign in</button></form>"
    )


def change_form(site: PracticeSite, user_name: str) -> str:
    """The current password, and a new one twice."""
    return (
        f"<p>Signed in as <b>{escape(user_name)}</b></p>"
        '<form method="post" action="/change-password">'
        + _field("password", "Current password", "password", "current-password", _pasting(site))
        + _new_fields(site)
        + "<button>Change password</button></form>"
        '<form method="post" action="/sign-out"><button>Sign out</button></form>'
    )


def code_form(token: str) -> str:
    """The code of a second factor."""
    return (
        '<form method="post" action="/sign-in/code">'
        f'<input type="hidden" name="token" value="{escape(token)}">'
        + _field("code", "Code", "text", "one-time-code", 'inputmode="numeric"')
        + "<button>Go on</button></form>"
    )


def code_key_note(code_key: str) -> str:
    """Where the key of the codes can be read."""
    return f"<p>Key of your codes: <code>{escape(code_key)}</code></p>"


def _pasting(site: PracticeSite) -> str:
    return ' onpaste="return false"' if site.blocks_pasting else ""


def _new_fields(site: PracticeSite) -> str:
    rules = f'minlength="{site.least}" passwordrules="{escape(site.rules_attribute)}"'
    rules += _pasting(site)
    return _field("new_password", "New password", "password", "new-password", rules) + _field(
        "again", "New password again", "password", "new-password", rules
    )


def _field(name: str, label: str, kind: str, autocomplete: str, more: str = "") -> str:
    return (
        f'<label>{label}<input name="{name}" type="{kind}" autocomplete="{autocomplete}" '
        f"{more} required></label>"
    )
