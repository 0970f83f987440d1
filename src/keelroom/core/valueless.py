"""Whether a record of figures, records within it too, holds one that is no number: asked of hundreds at every edit.

Compiled where a C compiler was at hand (`valueless.pxd` types it).
"""


def valueless(values):
    """Whether any figure of a tuple is nan. values: floats, words, tuples of the like; anything else is no figure."""
    for value in values:
        if type(value) is float:
            number = value
            if number != number:
                return True
        elif isinstance(value, tuple) and valueless(value):
            return True
    return False
