"""What an act brings, in words: what it changes and takes, what to mind, what to look at once it is done."""

from __future__ import annotations

from keelroom.assess.acts.kind import HOUR
from keelroom.assess.acts.registry import Brings, kind_of
from keelroom.document.act import Act
from keelroom.document.difference import Difference, worded
from keelroom.facts import lowered
from keelroom.units import money_text


def brings_words(act: Act, found: Brings, currency: str, most: int) -> str:
    """What an act changes, at most so many changes told, and what it takes; places within its own package without
    that package's name."""
    changes = "; ".join(worded(_within(act, one)) for one in found.changes[:most])
    more = f" and {len(found.changes) - most} more" if len(found.changes) > most else ""
    takes = takes_words(found, currency)
    return f"{changes}{more}. {takes}" if takes else changes + more


def takes_words(found: Brings, currency: str) -> str:
    """The hours, parts and money an act takes, and the money it leaves unspent; '' where it does neither."""
    takes = [*([f"{found.hours / HOUR:.1f} h"] if found.hours and found.hours > 0 else []), *map(lowered, found.parts)]
    money = money_text(abs(found.money or 0), currency)
    if found.money and found.money > 0:
        takes.append(money)
    taken = [f"Takes {', '.join(takes)}."] if takes else []
    saved = [f"{money} less to buy."] if found.money and found.money < 0 else []
    return " ".join(taken + saved)


def mind_words(found: Brings) -> str:
    """What can hurt somebody or cannot be taken back, and what to look at first; '' where there is nothing."""
    return " ".join((*found.cautions, *(f"First: {one[:1].lower()}{one[1:]}." for one in found.before)))


def after_words(act: Act) -> str:
    """What to look at once an act is done; '' where there is nothing."""
    after = kind_of(act).after
    return f"Then: {'; '.join(f'{one[:1].lower()}{one[1:]}' for one in after)}." if after else ""


def _within(act: Act, change: Difference) -> Difference:
    own = act.package and change.path[:2] == ("packages", act.package) and len(change.place) > 2
    return change._replace(place=change.place[2:]) if own else change
