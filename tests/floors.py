"""A property that asserts only where its condition is met counts how often it did, and fails under a floor."""

from collections.abc import Callable
from functools import wraps
from typing import Any


class Floor:
    """`met()` says whether a condition holds and counts; `at_least` fails a test that asserted too seldom."""

    def __init__(self) -> None:
        self.count = 0

    def met(self, condition: object) -> bool:
        self.count += bool(condition)
        return bool(condition)

    def at_least(self, least: int) -> Callable[[Callable[..., Any]], Callable[..., Any]]:
        def decorate(test: Callable[..., Any]) -> Callable[..., Any]:
            @wraps(test)
            def run(*given: Any, **named: Any) -> None:
                self.count = 0
                test(*given, **named)
                assert self.count >= least, f"asserted {self.count} times, at least {least} wanted"

            return run

        return decorate


FLOOR = Floor()
