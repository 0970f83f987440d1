"""The bench ends with one table, and not well where a budget was missed."""

from tests.perf.budgets import BARES, MEASURED, bare_window, table


def pytest_collection_finish():
    bare_window()  # the first figure, too, has one before it


def pytest_sessionfinish(session, exitstatus):
    if MEASURED and exitstatus == 0 and not all(one.kept for one in MEASURED):
        session.exitstatus = 1


def pytest_terminal_summary(terminalreporter):
    if MEASURED:
        terminalreporter.write_line(f"\nA bare window took {min(BARES):.2f} to {max(BARES):.2f} s in this run.")
        for row in table():
            terminalreporter.write_line(row)
