"""What an act brings, in words."""

from __future__ import annotations

from keelroom.assess.acts.kind import HOUR
from keelroom.assess.acts.registry import Brings
from keelroom.document.difference import worded


def brings_words(found: Brings, currency: str, most: int) -> str:
    """What an act changes, at most so many changes told; then what it takes and costs, what to look at before and after, what to mind."""
    changes = "; ".join(worded(one) for one in found.changes[:most])
    more = f" and {len(found.changes) - most} more" if len(found.changes) > most else ""
    takes = [*([f"{found.hours / HOUR:+.1f} h".replace("-", "−")] if found.hours else []), *found.parts]
    if found.money:
        takes.append(f"{'−' if found.money < 0 else ''}{currency}{abs(found.money):.0f}")
    sentences = [changes + more]
    if takes:
        sentences.append(f"Takes {', '.join(takes)}.")
    sentences += [f"First: {one}." for one in found.before]
    sentences += [f"Then: {one}." for one in found.after]
    return " ".join((sentences[0] + "." * (len(sentences) > 1 or bool(found.cautions)), *sentences[1:], *found.cautions)).strip()
