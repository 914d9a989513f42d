"""The vault itself: held, entered, recovered, safeguarded."""
