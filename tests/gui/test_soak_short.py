"""A short soak in every test run: the whole of it is `make soak`."""

from tests.soak import pages
from tests.soak.kills import kill_one
from tests.soak.monkey import run


def test_a_monkey_breaks_nothing(record_property):
    did, broke = run(50, seed=12, each=25)
    assert not broke, "\n".join(broke)
    assert did["typed"] > 5
    assert did["drag"] > 1
    record_property("counts", f"monkey: {sum(did.values())} acts, {dict(did.most_common(4))}")


def test_every_page_bears_odd_builds():
    seen, broke = pages.run(2, seed=8, pages_of=3)
    assert not broke, "\n".join(broke)
    assert seen > 20


def test_a_killed_window_loses_less_than_two_seconds_however_fast_one_works():
    for pace in (0.05, 0.35):
        kill = kill_one(pace, after=2.5, least=4)
        assert kill.edits > 3
        assert kill.lost < 2.0
