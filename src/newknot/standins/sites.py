"""The practice sites: what each is called, and how it treats passwords."""

from dataclasses import dataclass

LETTERS_DIGITS = "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789"


@dataclass(frozen=True, slots=True)
class PracticeSite:
    """A made-up site. keeps_first: characters it silently keeps of a password."""

    host: str
    title: str
    line: str
    least: int
    most: int
    symbols: str
    needs_digit: bool = False
    forbids_user_name: bool = False
    keeps_first: int | None = None

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
        return password[: self.keeps_first] if self.keeps_first else password

    @property
    def rules_attribute(self) -> str:
        """The `passwordrules` attribute text of its password fields."""
        allowed = "; allowed: upper, lower, digit"
        if self.symbols:
            allowed += f", [{self.symbols}]"
        required = "; required: digit" if self.needs_digit else ""
        return f"minlength: {self.least}; maxlength: {self.most}{required}{allowed};"


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
            symbols="!#$%&*+-./:;=?@_",
            keeps_first=12,
        ),
    )
}
