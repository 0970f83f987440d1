"""The loader against 2 400 mutated files: refused with one sentence, or accepted, assessed and round-tripped."""

import json
import random
from collections import Counter
from pathlib import Path

from keelroom.assess.assess import assess
from keelroom.document.file import load, parse, serialised
from keelroom.errors import DocumentError
from tests.conftest import DEMO
from tests.long import long

COUNT = long("fuzz", 200)


def one_package() -> bytes:
    """The demo with one of everything: every kind of section is there, and none of them twice."""
    build = load(DEMO)
    survey = build.survey.model_copy(update={"obstacles": build.survey.obstacles[:1], "holes": build.survey.holes[:1]})
    package = build.package.model_copy(update={"brackets": build.package.brackets[:1]})
    return serialised(build.model_copy(update={"packages": (package,), "survey": survey}))


TEXT = one_package()
JUNK = [None, True, "", "x", -1, 0, 3.5, [], {}, [[]], {"si": 1}, "1e400", 10**30]


def places(node, path=()):
    """Every (container, key) of a JSON document."""
    items = node.items() if isinstance(node, dict) else enumerate(node)
    for key, value in items:
        yield node, key
        if isinstance(value, dict | list):
            yield from places(value, (*path, key))


def structural(chance: random.Random) -> tuple[str, bytes]:
    """Still JSON (or JSON with a poisoned number), broken at schema level more often than not."""
    document = json.loads(TEXT)
    for _ in range(chance.choice((1, 1, 1, 2, 5))):
        node, key = chance.choice(list(places(document)))
        kind = chance.choice(("type", "missing", "extra", "swap", "nest", "number", "token", "duplicate"))
        if kind == "type":
            node[key] = chance.choice(JUNK)
        elif kind == "missing":
            del node[key]
        elif kind == "extra" and isinstance(node, dict):
            node[f"also_{key}"] = 1
        elif kind == "swap" and isinstance(node, dict):
            other = chance.choice(list(node))
            node[key], node[other] = node[other], node[key]
        elif kind == "nest":
            node[key] = json.loads("[" * 60 + "]" * 60)
        elif kind == "number" and isinstance(node, dict):
            numbers = [q for q in places(document) if q[1] == "as_typed"]
            target, field = chance.choice(numbers)
            target[field] = chance.choice(("-1", "0", "3/0", "1e300", "abc", "", "1e-300"))
        elif kind in ("token", "duplicate"):
            node[key] = f"@@{kind}@@"
    text = json.dumps(document)
    poison = chance.choice(("NaN", "Infinity", "1e400", "-1e999"))
    return kind, text.replace('"@@token@@"', poison).replace('"@@duplicate@@"', '{"a": 1, "a": 2}').encode()


def damaged(chance: random.Random) -> tuple[str, bytes]:
    """Bytes cut, flipped, doubled or foreign."""
    data = bytearray(TEXT)
    kind = chance.choice(("cut", "flip", "double", "foreign", "deep"))
    at = chance.randrange(len(data))
    if kind == "cut":
        del data[at:]
    elif kind == "flip":
        for _ in range(chance.choice((1, 3, 20))):
            data[chance.randrange(len(data))] = chance.randrange(256)
    elif kind == "double":
        data[at:at] = data[: chance.randrange(200)]
    elif kind == "foreign":
        data = bytearray(chance.randbytes(chance.randrange(2000)))
    else:
        data = bytearray(b'{"a":' * chance.randrange(1, 5000))
    return kind, bytes(data)


def outcome(data: bytes) -> str:
    try:
        build = parse(data, Path("fuzzed.keelroom"))
    except DocumentError as error:
        assert error.message.startswith("fuzzed.keelroom")
        assert "\n" not in error.message
        assert "Traceback" not in error.message
        return f"refused: {error.code}"
    assert parse(serialised(build), Path("again")) == build
    assessment = assess(build)
    for case in assessment.cases:
        if case.figures:
            assert case.figures.temperature == case.figures.temperature
    return "accepted"


def test_no_file_gets_past_half_loaded(record_property):
    chance = random.Random(20)
    made = [structural(chance) if i % 4 else damaged(chance) for i in range(COUNT)]
    outcomes: Counter[str] = Counter()
    still_json = broken = 0
    for _, data in made:
        result = outcome(data)
        outcomes[result] += 1
        try:
            json.loads(data)
        except (ValueError, RecursionError):
            continue
        still_json += 1
        broken += result != "accepted"
    told = (
        f"fuzzed {COUNT} files, {still_json} still JSON, {broken} of those broken at schema level: "
        f"{dict(sorted(outcomes.items()))}"
    )
    record_property("counts", told)
    assert broken >= COUNT // 2
    assert outcomes["accepted"] > COUNT // 45
