"""Acts on the work: a step ticked off or taken back, a step of one's own, a shop's own table, what is in hand."""

from __future__ import annotations

from keelroom.assess.acts.kind import ActKind, Doing
from keelroom.assess.work.plan import planned
from keelroom.assess.work.shopping import shopping
from keelroom.document.edits import Change, Edit, added, fresh_id, set_value
from keelroom.document.quantity import quantity
from keelroom.document.schema.work import Item, OwnStep, Tick
from keelroom.errors import InputError

WENT = ("done", "twice", "other", "stopped")


def _tick(do: Doing) -> Edit:
    """A step ticked off, as it went; one ticked before is told anew."""
    wanted, went = do.given("step"), do.given("went")
    if went not in WENT:
        raise InputError("no_such_way", f"“{went}” is no way a step goes: {', '.join(WENT)} were expected")
    plan = planned(do.build, do.package)
    step = next((one for one in plan.steps if one.key == wanted), None)
    if step is None:
        raise InputError("no_such_step", "That step is no longer in the plan")
    told = dict(do.act.given)
    ticks = do.build.work.ticks
    before = plan.ticks.get(wanted)
    tick = (before or Tick(id=fresh_id(ticks, "tick"))).model_copy(
        update={
            "step": step.key,
            "package": do.package.id,
            "words": step.words,
            "went": went,
            "day": told.get("day", before.day if before else ""),
            "who": told.get("who", before.who if before else ""),
            "planned": round(step.billed, 1),
        }
    )
    if told.get("took"):
        tick = tick.model_copy(update={"took": quantity(told["took"], "minutes")})
    if told.get("note"):
        tick = tick.model_copy(update={"note": told["note"]})
    others = tuple(one for one in ticks if one.id != tick.id)
    return Edit(do.act.label, (Change(("work", "ticks"), (*others, tick)),))


def _untick(do: Doing) -> Edit:
    """A tick taken back."""
    wanted = do.given("step")
    ticks = do.build.work.ticks
    left = tuple(one for one in ticks if not (one.step == wanted and one.package == do.package.id))
    if len(left) == len(ticks):
        raise InputError("not_ticked", "That step was not ticked off")
    return set_value(("work", "ticks"), left, do.act.label)


def _own_step(do: Doing) -> Edit:
    own = do.build.work.own
    return added(do.build, ("work", "own"), OwnStep(id=fresh_id(own, "own")), do.act.label)


def _item(do: Doing) -> Edit:
    """Something on the shopping list, to be described: its price, where it is from, when it comes."""
    key = do.given("item")
    wanted = next((one for one in shopping(do.build, do.package) if one.key == key), None)
    if wanted is None:
        raise InputError("no_such_item", "That is no longer on the list")
    if any(one.id == key for one in do.build.work.items):
        raise InputError("item_known", "It is described already")
    return added(do.build, ("work", "items"), Item(id=key, name=wanted.name), do.act.label)


def _in_hand(do: Doing) -> Edit:
    """Something on the shopping list that is in hand, or is not any more."""
    key, items = do.given("item"), do.build.work.items
    wanted = next((one for one in shopping(do.build, do.package) if one.key == key), None)
    if wanted is None:
        raise InputError("no_such_item", "That is no longer on the list")
    item = next((one for one in items if one.id == key), Item(id=key, name=wanted.name))
    others = tuple(one for one in items if one.id != key)
    changed = item.model_copy(update={"in_hand": not wanted.in_hand})
    return set_value(("work", "items"), (*others, changed), do.act.label)


def _table_shipped(do: Doing) -> Edit:
    if not do.build.work.table:
        raise InputError("table_shipped", "The build goes by the table that ships already")
    return set_value(("work", "table"), "", do.act.label)


KINDS = (
    ActKind("tick", "A step of the work ticked off", _tick, "Tick it off"),
    ActKind("untick", "A tick taken back", _untick, "Take the tick back"),
    ActKind("own_step", "A step of one's own", _own_step, "Add a step of our own", first="name"),
    ActKind("describe_item", "What is known of something to be bought", _item, "Price, source, days", first="price"),
    ActKind("in_hand", "Something in hand, or not any more", _in_hand, "In hand"),
    ActKind("shipped_steps", "The table of steps that ships", _table_shipped, "Go by the table that ships"),
)
