"""Views of a text: what may have been done to it, undone."""

from newknot.core.strength.views.like_words import WORD_LEAST
from newknot.core.strength.views.view import View, views_of

__all__ = ["WORD_LEAST", "View", "views_of"]
