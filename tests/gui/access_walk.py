"""Walks a running window as a screen reader does, over the accessibility bus, and tells what it found as JSON. Run by
the system's Python, which has pyatspi: `python3 access_walk.py STATIONS`, as JSON: {station: [[page, [parts]]]}.

It sees nothing of the program but the bus: pages are turned by the buttons' own actions.
"""

import json
import sys
import time

import pyatspi

PRESSED = ("push button", "check box", "radio button", "toggle button")
NAMED = (*PRESSED, "text", "combo box", "slider", "table", "list", "scroll pane")
LIMIT = 30.0
"""[s] until something must have come"""


def walk(node, depth=0):
    """A node that is to be seen and all under it that is; what goes while it is looked at is left out."""
    try:
        if depth > 40 or not node.getState().contains(pyatspi.STATE_SHOWING):
            return
        yield node.getRoleName(), node.name or "", node.description or "", node
        children = [node.getChildAtIndex(place) for place in range(node.childCount)]
    except Exception:
        return
    for child in children:
        if child is not None:
            yield from walk(child, depth + 1)


def window():
    """The program's window, once it is on the bus."""
    end = time.monotonic() + LIMIT
    while time.monotonic() < end:
        for program in pyatspi.Registry.getDesktop(0):
            for found in program or ():
                if found is not None and "Keel Room" in (found.name or ""):
                    return found
        time.sleep(0.05)
    raise SystemExit("the program never came to the bus")


def press(top, wanted, *, begins=False):
    """Do what a button of that name, or one that begins so, is for, once it is there; the first on the way is it."""
    end = time.monotonic() + LIMIT
    while time.monotonic() < end:
        for role, name, _, node in walk(top):
            if role in PRESSED and (name.startswith(wanted) if begins else name == wanted):
                node.queryAction().doAction(0)
                return
        time.sleep(0.05)
    raise SystemExit(f"no button is called “{wanted}”")


def text_of(node):
    """What stands in a field."""
    try:
        return node.queryText().getText(0, -1)
    except Exception:
        return ""


def look(top):
    """Names that are missing, fields that say nothing of what goes in, and how many there were."""
    faults, fields, buttons = [], 0, 0
    for role, name, told, node in walk(top):
        if role in NAMED and not name and role not in ("list", "scroll pane"):
            faults.append(f"a {role} without a name ({told[:40]})")
        if role == "text":
            fields += 1
            if not told and not text_of(node):
                faults.append(f"“{name}” says nothing of what is expected")
        buttons += role in PRESSED
    return faults, fields, buttons


def main(stations):
    top, found = window(), {}
    for station, pages in stations.items():
        press(top, f"{station} station", begins=True)
        for page, parts in pages:
            press(top, page)
            for part in parts or [page]:
                if parts:
                    press(top, part)
                faults, fields, buttons = look(top)
                found[f"{station}, {part}"] = {"faults": faults, "fields": fields, "buttons": buttons}
    last = list(walk(top))
    verdict = [name for _, name, _, _ in last if name.startswith("Verdict: ")]
    cases = [name for role, name, _, _ in last if role in PRESSED and ": " in name and "band" in name]
    print(json.dumps({"pages": found, "verdict": verdict, "cases": cases}))


if __name__ == "__main__":
    main(json.loads(sys.argv[1]))
