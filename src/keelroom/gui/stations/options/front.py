"""The Front page: what nothing beats of all packages there could be, and what of each would be regretted."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from keelroom.assess.acts.registry import offer
from keelroom.assess.figures.in_hand import within_far
from keelroom.assess.options.space import bounds_of, nearest
from keelroom.assess.questions.chosen import Chosen, chosen, cooler_than, picked, plain_words
from keelroom.assess.questions.options import AIMS, Found, Judged, searched
from keelroom.assess.questions.standing import day_words
from keelroom.assess.work.money import HOUR
from keelroom.document.act import Act
from keelroom.document.fields import spec_of
from keelroom.document.schema.choosing import Choosing
from keelroom.drawing.degrees import Lane, Post, Spot, degrees_scene
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.asked_table import AskedTable
from keelroom.gui.widgets.scene_view import Drawing
from keelroom.units import KINDS, Unit, money_text, no_less

COLUMNS = ("Package", "Hotter day", "Money", "Hours", "Amps", "Too small in", "Regret", "Cooler than now")
NOTE = "A click makes one a package of the build, undone like any other step. Of the same car: doubts are shared."
FOOT = "80 of 100 such cars lie between the ends of a bar. Cheapest first; all are in the table."
LONGEST = 52
"""Letters of a name in the picture, beside what it costs in the smallest window"""
DRAWN = 6
"""Packages that are drawn: as many as have room for their names"""
WORDS = {
    "width": "wider than its face may be",
    "height": "higher than its face may be",
    "no_cut": "want the panel cut",
    "amps": "draw more amps",
    "budget": "cost more",
    "hours": "take longer",
    "own_only": "are not in the build",
}
"""of what each bound throws out"""
FLAGS = {"no_cut": "The panel is not cut", "own_only": "Only what the build has already"}
"""Bounds that are no amounts"""


class FrontView(AskedTable[Chosen]):
    """All of them solved beside the window, with how far it has come."""

    tells = True

    def __init__(self, session: Session) -> None:
        super().__init__(session, "What nothing beats", COLUMNS, NOTE, "core, fan, bare …", words=True)

    def question(self) -> Callable[..., Chosen]:
        build = self.session.build

        def work(tell: Callable[..., bool]) -> Chosen:
            def told(share: float, found: Found | None = None) -> bool:
                return tell(share, chosen(found, build) if found is not None else None)

            return chosen(searched(build, bounds_of(build.choosing), build.choosing.aims, told), build)

        return work

    def stopped(self, found: Chosen) -> bool:
        return not found.found.whole

    def show_found(self, found: Chosen) -> None:
        told = found.found
        self.why.setText(" ".join(self._said(found)))
        self.table.show_rows([self._row(found, n) for n in range(len(found.rows))], -1)
        aims = ", ".join(AIMS[name].lower() for name in told.aims)
        self.said.setText(f"Nothing beats these in {aims}. The first is nearest to the best of each.")

    def _said(self, answer: Chosen) -> Iterator[str]:
        found = answer.found
        space = found.space
        left, front = space.left, len(found.front)
        if not found.cases:
            yield "No duty case counts: there is nothing to judge by. Let one count, under Brief, Duty cases."
            return
        yield f"{left} of {space.new} packages keep to the bounds; {front} no other of them beats."
        for own in found.beside:
            beats = found.beaten_by(own)
            if beats:
                which = "all" if beats == front else f"{beats}"
                yield f"{own.option.words[0].upper()}{own.option.words[1:]} beats {which} of those: keep it."
        for name, out in space.out.items():
            yield f"{len(out)} {WORDS[name]}."
        near = None if space.left else nearest(space.all, bounds_of(self.session.build.choosing))
        if near is not None:
            takes = " and ".join(self._takes(name, value) for name, value in near.over.items())
            yield f"Nothing new is left. Nearest is {near.one.option.words}: loosen {takes}."
        if found.hopeless:
            names = {case.id: case.name for case in self.session.build.duty_cases}
            yield f"No package holds {', '.join(names[case] for case in found.hopeless)}: nothing is judged by that."
        yield from plain_words(answer, self.session.build, self.session.settings.currency)
        if not found.whole:
            yield "Stopped: what was found so far."

    def _takes(self, name: str, value: float | None) -> str:
        """What a bound is to be loosened to."""
        spec = spec_of(Choosing, name)
        if value is None or spec is None:
            return f"“{FLAGS[name]}”"
        return f"“{spec.label}” to {no_less(value, spec.kind, self.session.system)}"

    def _row(self, answer: Chosen, n: int) -> tuple[str, ...]:
        one, sign = answer.rows[n], self.session.settings.currency
        day = day_words(one.worst, self.session.system)
        cost, hours = money_text(one.priced.money, sign), f"{one.priced.hours / HOUR:.0f} h"
        amps = f"{one.priced.amps:.0f} A"
        if not one.doubted:
            return one.option.words, day, cost, hours, amps, "…", "…", "…"
        small = f"{100 * answer.regret.too_small[n]:.0f} of 100"
        regret = money_text(float(answer.regret.expected[n]), sign)
        than = "" if answer.now in (-1, n) else f"{cooler_than(answer.drawn, n, answer.now):.0%}"
        return one.option.words, day, cost, hours, amps, small, regret, than

    def act_at(self, row: int) -> Act | None:
        if self.found is None or not 0 <= row < len(self.found.rows):
            return None
        option = self.found.rows[row].option
        return None if option.sort == "now" else offer("take_option", option=option.key)

    def draw(self, found: Chosen) -> Drawing:
        rows = picked(found, DRAWN)
        if not rows:
            return None, "", "No package is left to be drawn."
        lanes = tuple(_lane(one, self.session) for one in rows)
        unit = KINDS["temperature difference"].shown_unit(self.session.system)
        shown = Unit(unit.symbol, unit.factor, decimals=0)
        scene = degrees_scene(lanes, (Post(0.0, "its own day", "rail.limit"),), (("now", "likely"),), shown)
        return (
            scene,
            "What more money buys",
            "80 of 100 such cars lie between the ends of a bar. Cheapest first; all are in the table.",
        )


def _lane(one: Judged, session: Session) -> Lane:
    worst, (low, high) = one.worst, one.band
    assert worst is not None
    cost = money_text(one.priced.money, session.settings.currency)
    note = f"{cost}, {one.priced.hours / HOUR:.0f} h"
    name = one.option.words.replace(", aluminium;", ";")  # most are
    name = name if len(name) <= LONGEST else f"{name[: LONGEST - 1]}…"
    value, low, high = map(within_far, (worst.day, low, high))
    return Lane(name, (Spot(value, "now", low, high),), note, one.option.sort == "now")
