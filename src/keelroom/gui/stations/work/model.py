"""The Work station's forms: when and for how much is worked, what is known of things to be bought, the record."""

from __future__ import annotations

from keelroom.assess.acts.registry import offer
from keelroom.catalogue.steps import STATES
from keelroom.document.schema.build import Build
from keelroom.document.schema.work import Item, OwnStep, Tick
from keelroom.gui.rows import Group, Page, Press, Row, Said, quantities
from keelroom.gui.stations.work.plans import shortened

DAYS = (
    ("mon", "Mon"),
    ("tue", "Tue"),
    ("wed", "Wed"),
    ("thu", "Thu"),
    ("fri", "Fri"),
    ("sat", "Sat"),
    ("sun", "Sun"),
)
WENT = (("done", "As planned"), ("twice", "Made twice"), ("other", "Another part"), ("stopped", "Stopped"))
AT = ("work",)


def pages(build: Build, money: Said) -> tuple[Page, ...]:
    """The station's pages."""
    return (
        Page("Order", ()),
        money_page(build, money),
        Page("List", ()),
        known_page(build),
        Page("Bench", ()),
        record_page(build),
    )


def money_page(build: Build, money: Said) -> Page:
    """Who works when, what an hour costs, steps of one's own, the shop's own times."""
    own = tuple(_own(one) for one in build.work.own)
    pace = tuple(
        Group(
            f"Our pace: {one.id.replace('_', ' ')}",
            quantities((*AT, "pace", one.id), "times", of=one.id),
            f"From {one.steps} steps of finished builds.",
            remove=(*AT, "pace", one.id),
            rare=True,
        )
        for one in build.work.pace
    )
    actions: tuple[Press, ...] = (
        ("Add a step of our own", offer("own_step")),
        ("Steps’ table…", "table"),
        ("Our times…", "times"),
    )
    return Page(
        "Hours",
        (
            Group(
                "Who and when",
                (
                    *quantities(AT, "people", "begins", "day"),
                    Row("set", (*AT, "days"), "Days", DAYS),
                    Row("text", (*AT, "start"), "Begins on"),
                    Row("text", (*AT, "needed"), "Car needed on"),
                ),
                note="Days as 2026-12-24. Waiting, paint and cooling down, goes on over night.",
            ),
            Group("Money", quantities(AT, "rate", "contingency")),
            *own,
            *pace,
        ),
        actions,
        money,
    )


def _own(own: OwnStep) -> Group:
    at = (*AT, "own", own.id)
    states = tuple((key, f"With the car {words}") for key, words in STATES.items())
    return Group(
        f"Our own: {own.name}",
        (
            Row("text", (*at, "name"), "Step", said=own.name),
            *quantities(at, "low", "likely", "high", "hands", "cost", of=own.name),
            Row("choice", (*at, "state"), "Done", states, own.name),
        ),
        remove=at,
    )


def known_page(build: Build) -> Page:
    """What is known of things on the list."""
    said: Said = (
        () if build.work.items else (("faint", "Nothing yet: choose a row of the list, or bring a price list."),)
    )
    return Page("Known of them", tuple(_item(item) for item in build.work.items), (("Price list…", "prices"),), said)


def _item(item: Item) -> Group:
    at, of = (*AT, "items", item.id), item.name or item.id
    return Group(
        of,
        (
            *quantities(at, "price", "lead", of=of),
            Row("text", (*at, "source"), "From", said=of),
            Row("text", (*at, "instead"), "Would do as well", said=of),
            Row("text", (*at, "receipt"), "Receipt", said=of),
            Row("flag", (*at, "in_hand"), "In hand", said=of),
        ),
        remove=at,
    )


def record_page(build: Build) -> Page:
    """What was done, with what one would do otherwise."""
    ticks = tuple(_tick(tick) for tick in build.work.ticks)
    actions: tuple[Press, ...] = (
        ("Record…", "record"),
        ("As a table…", "rows"),
        ("Why so long?", "why"),
    )
    said: Said = () if ticks else (("faint", "Nothing was ticked off yet: the Bench page does."),)
    notes = Group("What one would do otherwise, what stays open", (Row("notes", (*AT, "notes"), "Notes"),))
    return Page("Record", (notes, *ticks), actions, said, brief=lambda at: _brief(build, at[-1]))


def _tick(tick: Tick) -> Group:
    at, of = (*AT, "ticks", tick.id), tick.words[:40] or tick.step
    return Group(
        shortened(tick.words, 52) or tick.step,
        (
            Row("choice", (*at, "went"), "Went", WENT, of),
            Row("text", (*at, "day"), "On", said=of),
            Row("text", (*at, "who"), "By", said=of),
            *quantities(at, "took", of=of),
            Row("text", (*at, "note"), "Note", said=of),
        ),
        f"{len(tick.photos)} photos" if tick.photos else "",
        remove=at,
        rare=True,
    )


def _brief(build: Build, ident: str) -> str:
    tick = next((one for one in build.work.ticks if one.id == ident), None)
    if tick is None:
        return ""
    return ", ".join(word for word in (dict(WENT)[tick.went].lower(), tick.day, tick.who) if word)
