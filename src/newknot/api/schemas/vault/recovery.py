"""Shapes of the way back in."""

from datetime import datetime

from pydantic import Field, SecretStr

from newknot.api.schemas.base import Shape, Whole

SHEETS_MOST = 16
SHEET_LENGTH_MOST = 2_000


class RecoveryOut(Shape):
    """threshold of count sheets open the vault; practised_at null: never tried."""

    made_at: datetime
    threshold: int
    count: int
    practised_at: datetime | None


class SheetsWish(Shape):
    """How many sheets, and how many of them are needed."""

    threshold: Whole
    count: Whole


class SheetOut(Shape):
    """One sheet: its words, and the modules of its QR picture by rows of 0 and 1."""

    words: str
    qr_rows: list[str]


class MadeSheets(Shape):
    """All sheets, this once."""

    sheets: list[SheetOut]


class SheetsIn(Shape):
    """Sheets as typed or read from pictures."""

    sheets: list[SecretStr] = Field(min_length=1, max_length=SHEETS_MOST)

    def texts(self) -> list[str]:
        """Their words, cut where no share is as long."""
        return [sheet.get_secret_value()[:SHEET_LENGTH_MOST] for sheet in self.sheets]


class RecoverIn(SheetsIn):
    """With the passphrase that the vault is to have from then on."""

    passphrase: SecretStr
    drawn: bool = False


class LookedAtOut(Shape):
    """A sheet's place in its set and how many are needed, or what is wrong with it."""

    place: int | None
    threshold: int | None
    reason: str


class PictureTexts(Shape):
    """What the QR codes of a picture say."""

    texts: list[str]
