"""How much a document takes. Nothing is imported here: the front server, which reads no format, holds limits too."""

LARGEST_FITTING = 200_000_000
"""Of a fitting's file, with its photos [bytes]."""

MOST_GROUNDS = 8
MOST_READINGS = 30
"""Of one ground."""
MOST_WEDGES_OWNED = 8
MOST_HEADS = 400
"""Of a rack: of the studio's, or of one that a fitting brings."""
MOST_PHOTOS = 6
"""Of one wedge."""
MOST_BENDS_BEFORE = 12
"""Of one head, before its build."""
MOST_OWN_SWINGS = 4
MOST_BANDS = 12
"""Of distances."""

NAME_LETTERS = 120
"""Of a player, a fitter, a ground, a club, a kept proposal."""
SWING_NAME_LETTERS = 30
MAPPING_NAME_LETTERS = 80
BALL_LETTERS = 60
NOTE_LETTERS = 200
"""Of a note on a strike."""
WHY_LETTERS = 200
"""Of why something is put off, or stays outside its tolerance."""
