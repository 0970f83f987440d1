"""What is kept between calls: found by object or value, one thread at a time, gone with its owner."""

import threading

from keelroom.core.kept import Kept, by_identity, by_value, in_one_go


def test_one_thread_at_a_time():
    kept, refused = Kept(), []

    def enter():
        try:
            with kept.at_work():
                pass
        except RuntimeError as error:
            refused.append(str(error))

    with kept.at_work(), kept.at_work():
        other = threading.Thread(target=enter)
        other.start()
        other.join()
    assert refused == ["what is kept is in use by another thread"]
    enter()
    assert len(refused) == 1


def test_stages_are_found_by_object_or_value_and_the_ones_used_last_stay():
    made = []

    @by_identity(2)
    def stage(thing):
        made.append(thing)
        return [thing]

    @by_value(2)
    def valued(number):
        made.append(number)
        return [number]

    first, second, third = ({"a": 1} for _ in range(3))
    with Kept().at_work():
        assert stage(first) is stage(first)
        assert stage(first) is not stage(second), "equal is not the same object"
        stage(first)
        stage(third)  # pushes out the second, used longest ago
        assert len(made) == 3
        stage(first)
        assert len(made) == 3
        stage(second)
        assert len(made) == 4
        assert valued(1) is valued(1)
    with Kept().at_work():
        stage(first)
        assert len(made) == 6, "another Kept begins empty"


def test_without_one_at_work_nothing_is_kept_but_a_call_shares_its_own_stages():
    made = []

    @by_value(4)
    def stage(number):
        made.append(number)
        return number

    @in_one_go
    def ask():
        return stage(1) + stage(1)

    def bare():
        stage(1)
        stage(1)
        ask()
        ask()

    thread = threading.Thread(target=bare)  # a thread of its own has none at work
    thread.start()
    thread.join()
    assert made == [1, 1, 1, 1]
