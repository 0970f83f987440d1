"""Many builds asked at once: shared out, in streams, or alone, the answers are the same."""

import math
import multiprocessing

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from keelroom.assess.figures import batch, shared_out
from keelroom.assess.figures.batch import Asked, batches, by_builds, held, rows_for
from keelroom.core.arrays import between
from keelroom.document.edits import apply, set_value
from keelroom.document.file import load
from tests.conftest import DEMO
from tests.packages import packages

BUILD = load(DEMO)


def questions(count):
    builds = [BUILD.model_copy(update={"packages": (package,), "active": package.id}) for package in packages(count)]
    return [Asked(build, case.id) for build in builds for case in build.duty_cases]


def close(found, expected):
    return [point.temperature for point in found] == pytest.approx([point.temperature for point in expected], rel=1e-6)


def test_other_processes_find_what_this_one_finds(monkeypatch):
    asked = questions(4)
    alone = held(asked)
    monkeypatch.setattr(batch, "SHARED", 12)
    monkeypatch.setattr(batch, "SHARE", 12)
    monkeypatch.setattr(shared_out.os, "cpu_count", lambda: 2)
    assert close(held(asked), alone)


def test_without_room_for_processes_the_answer_comes_all_the_same(monkeypatch):
    asked = questions(2)
    alone = held(asked)

    def none_left(*_, **__):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(batch, "SHARED", 6)
    monkeypatch.setattr(batch, "SHARE", 6)
    monkeypatch.setattr(shared_out.os, "cpu_count", lambda: 2)
    monkeypatch.setattr("concurrent.futures.ProcessPoolExecutor", none_left)
    assert held(asked) == alone


def test_a_stream_over_processes_is_that_of_map_and_can_be_left(monkeypatch):
    """In order, whoever worked it out; under so many parts, or with one left behind half way, no process stays."""
    monkeypatch.setattr(shared_out.os, "cpu_count", lambda: 2)
    numbers = [float(n) for n in range(20)]
    assert list(shared_out.over_processes(math.sqrt, numbers)) == [math.sqrt(n) for n in numbers]
    stream = shared_out.over_processes(math.sqrt, numbers)
    assert [next(stream), next(stream)] == [0.0, 1.0]
    stream.close()
    assert not multiprocessing.active_children()
    monkeypatch.setattr("concurrent.futures.ProcessPoolExecutor", None)  # not asked for
    assert list(shared_out.over_processes(math.sqrt, numbers[:3])) == [0.0, 1.0, math.sqrt(2)]
    with pytest.raises(ValueError, match="math domain"):
        list(shared_out.over_processes(math.sqrt, [-1.0]))


def test_parts_keep_the_questions_about_one_build_together(monkeypatch):
    monkeypatch.setattr(batch, "SHARE", 4)
    parts = by_builds(questions(3))
    assert [len(part) for part in parts] == [6, 6, 6]
    assert [len({id(question.build) for question in part}) for part in parts] == [1, 1, 1]


def test_batches_come_as_soon_as_they_are_full(monkeypatch):
    """Two of alike shape make one; what is missing is passed over, and every place comes once."""
    monkeypatch.setattr(batch, "CHUNK", 2)
    bare = apply(BUILD, set_value(("brief", "engine", "displacement"), None, ""))
    asked = [*questions(2)[:3], Asked(bare, "idle"), *questions(2)[3:5]]
    taken = []

    def watched():
        for place, row in enumerate(rows_for(asked)):
            taken.append(place)
            yield row

    stream = batches(watched())
    places, _ = next(stream)
    assert (places, taken) == ([0, 1], [0, 1])
    assert sorted(place for places, _ in stream for place in places) == [2, 4, 5]


@given(st.lists(st.floats(-1e3, 1e3), min_size=1, max_size=8, unique=True), st.data())
def test_a_value_between_points_is_numpys(along, data):
    along = sorted(along)
    values = data.draw(st.lists(st.floats(-1e3, 1e3), min_size=len(along), max_size=len(along)))
    at = data.draw(st.one_of(st.floats(-2e3, 2e3), st.sampled_from(along)))
    assert between(at, along, values) == pytest.approx(float(np.interp(at, along, values)), rel=1e-12, abs=1e-12)
