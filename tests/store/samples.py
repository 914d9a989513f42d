"""Values that sealed nouns are tried with."""

from datetime import UTC, datetime

from newknot.core.login import Origin

AT = datetime(2026, 11, 25, 12, 30, 5, 123456, tzinfo=UTC)
ODD = "Zoë \u202e “quoted” 灯\n\t'; --"
DRAWN, OWN = Origin("drawn", 126.07), Origin("own")
