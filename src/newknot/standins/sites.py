"""The practice sites: what each is called, and how it treats passwords."""

from dataclasses import dataclass, field

LETTERS_DIGITS = "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789"
SYMBOLS = "!#$%&*+-./:;=?@_"


@dataclass(frozen=True, slots=True)
class PracticeSite:
    """A made-up site with its faults.

    states_most: the greatest length that its form states, where that is wrong. keeps_first: the
    characters that it silently keeps. remembers: earlier passwords that it does not take again.
    """

    host: str
    title: str
    line: str
    least: int
    most: int
    symbols: str
    needs_digit: bool = False
    forbids_user_name: bool = False
    keeps_first: int | None = None
    folds_case: bool = False
    states_most: int | None = None
    remembers: int = 0
    expires_days: int | None = None
    blocks_pasting: bool = False
    asks_for_code: bool = False
    confirms_by_mail: bool = False
    mails_changes: bool = field(default=True)

    def refusal(self, password: str, user_name: str) -> str:
        """What the site says against a password, or nothing."""
        if not self.least <= len(password) <= self.most:
            return f"Your password must have {self.least} to {self.most} characters."
        strange = {c for c in password if c not in LETTERS_DIGITS + self.symbols}
        if strange:
            taken = (
                f"letters, digits and {' '.join(self.symbols)}"
                if self.symbols
                else "letters and digits"
            )
            return f"Your password may hold only {taken}."
        if self.needs_digit and not any(c.isdigit() for c in password):
            return "Your password must hold a digit."
        if self.forbids_user_name and user_name.lower() in password.lower():
            return "Your password must not hold your user name."
        return ""

    def kept(self, password: str) -> str:
        """What the site stores of it."""
        text = password[: self.keeps_first] if self.keeps_first else password
        return text.lower() if self.folds_case else text

    @property
    def rules_attribute(self) -> str:
        """The `passwordrules` attribute text of its password fields."""
        allowed = "; allowed: upper, lower, digit"
        if self.symbols:
            allowed += f", [{self.symbols}]"
        required = "; required: digit" if self.needs_digit else ""
        most = self.states_most or self.most
        return f"minlength: {self.least}; maxlength: {most}{required}{allowed};"


SITES = {
    site.host: site
    for site in (
        PracticeSite(
            host="gantryrentals.localhost",
            title="Gantry Rentals",
            line="Truss, chain hoists and wheel stands by the day",
            least=8,
            most=24,
            symbols="-_.@",
            needs_digit=True,
            forbids_user_name=True,
        ),
        PracticeSite(
            host="lumensociety.localhost",
            title="Lumen Society",
            line="Members' pages for those who light stages",
            least=8,
            most=16,
            symbols="",
        ),
        PracticeSite(
            host="papertape.localhost",
            title="Papertape Licensing",
            line="Play texts and performing rights",
            least=6,
            most=40,
            symbols=SYMBOLS,
            keeps_first=12,
        ),
        PracticeSite(
            host="northpier.localhost",
            title="North Pier Bookings",
            line="Seats at the end of the pier",
            least=8,
            most=32,
            symbols="-_",
            folds_case=True,
        ),
        PracticeSite(
            host="wardrobestore.localhost",
            title="Wardrobe Store",
            line="Costumes in and out",
            least=8,
            most=20,
            symbols=SYMBOLS,
            states_most=64,
        ),
        PracticeSite(
            host="slatehouse.localhost",
            title="Slate House Payslips",
            line="What you were paid, and when",
            least=10,
            most=30,
            symbols=SYMBOLS,
            remembers=5,
            expires_days=90,
        ),
        PracticeSite(
            host="cellarbar.localhost",
            title="Cellar Bar Rota",
            line="Who pours on which night",
            least=8,
            most=24,
            symbols="",
            blocks_pasting=True,
            mails_changes=False,
        ),
        PracticeSite(
            host="keylight.localhost",
            title="Keylight Forum",
            line="Talk about light",
            least=8,
            most=64,
            symbols=SYMBOLS,
            asks_for_code=True,
        ),
        PracticeSite(
            host="harbourpost.localhost",
            title="Harbour Post",
            line="Letters for boats",
            least=8,
            most=40,
            symbols=SYMBOLS,
            confirms_by_mail=True,
        ),
    )
}
