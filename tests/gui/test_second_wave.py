"""What comes after the typing: the ambient a package holds, in the findings, under Why, and in what leaves the
window."""

from pypdf import PdfReader
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication, QFileDialog, QLabel

from keelroom.assess.assess import assess
from keelroom.units import KINDS, format_si
from tests.told import why_of

HOLDS = "This package holds the limit up to"


def told(driver):
    """The sentences of the shown findings that name an ambient."""
    return [why_of(f).split(HOLDS)[1] for f in driver.window.session.assessment.findings if HOLDS in why_of(f)]


def holds_at(build):
    grade = next(case for case in assess(build).cases if case.case_id == "grade")
    return format_si(grade.figures.ambients.holds, KINDS["temperature"], "us")


def test_the_ambient_follows_the_edit_without_another_one(demo_window):
    driver = demo_window
    driver.open_finding(lambda finding: finding.code == "over_limit")
    driver.enter("Vehicle mass", "5200")
    assert not driver.window.session.assessment.complete
    assert driver.shows(f"{HOLDS} …")
    driver.until(lambda: driver.window.session.assessment.complete)
    figure = holds_at(driver.window.session.build)
    assert driver.shows(f"{HOLDS} {figure} ambient here.")
    assert not driver.shows(f"{HOLDS} …")


def test_a_wave_for_an_older_build_is_dropped(demo_window):
    driver = demo_window
    session = driver.window.session
    session.pause.setInterval(10**8)  # no pause here but those below
    driver.enter("Vehicle mass", "5200")
    session._deepen()  # as after a pause, the work under way when the next edit comes
    older = holds_at(session.build)
    driver.enter("Vehicle mass", "6200")
    driver.calm()
    assert not session.assessment.complete  # the answer for 5200 came meanwhile and says nothing here
    session._deepen()
    driver.until(lambda: session.assessment.complete)
    figure = holds_at(session.build)
    assert figure != older
    assert any(figure in sentence for sentence in told(driver))


def test_why_fills_in_what_came_later_and_keeps_its_movers(demo_window):
    driver = demo_window
    driver.key(Qt.Key.Key_F3)
    driver.until(lambda: driver.window.session.assessment.complete)
    why = driver.window.drawers.panels["Why"]
    driver.until(lambda: not why.worker.busy)
    movers = why.moves.text()
    driver.enter("Vehicle mass", "4100")
    assert why.values["Holds the limit up to"].text() == "…"
    driver.until(lambda: driver.window.session.assessment.complete and not why.worker.busy)
    assert why.values["Holds the limit up to"].text().endswith("°F ambient")
    assert why.moves.text() != "working it out …"
    assert movers


def test_what_leaves_the_window_is_whole_at_once(demo_window, tmp_path, monkeypatch):
    driver = demo_window
    sheet = tmp_path / "sheet.pdf"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", staticmethod(lambda *_: (str(sheet), "")))
    driver.enter("Vehicle mass", "5200")
    assert not driver.window.session.assessment.complete
    driver.window.menus.acts["Write the build sheet (PDF)…"].trigger()
    text = " ".join(" ".join(page.extract_text() for page in PdfReader(sheet).pages).split())
    assert f"{HOLDS} {holds_at(driver.window.session.build)}" in text
    assert f"{HOLDS} …" not in text
    driver.enter("Vehicle mass", "5400")
    driver.ctrl(Qt.Key.Key_C, shift=True)
    copied = QApplication.clipboard().text()
    assert f"{HOLDS} {holds_at(driver.window.session.build)}" in copied
    assert f"{HOLDS} …" not in copied


def test_the_trail_tells_every_step_with_what_it_left(demo_window):
    driver = demo_window
    driver.enter("Vehicle mass", "4100")
    driver.enter("Vehicle mass", "5200")
    driver.key(Qt.Key.Key_F4)
    lines = [made.text() for made in driver.window.drawers.panels["Trail"].findChildren(QLabel) if made.isVisible()]
    steps = [line for line in lines if line.startswith("Vehicle mass")]
    assert len(steps) == 2
    figures = [line for line in lines if "gap −2 5/16 in" in line]
    assert len(figures) == 2
    assert all("does not settle" in line for line in figures), "the demo's hill-climb, whatever the van weighs"


def test_closing_leaves_no_work_behind(demo_window):
    driver = demo_window
    driver.enter("Vehicle mass", "5200")
    driver.close_unsaved()
    assert not driver.window.session.pause.isActive()
    QApplication.processEvents()
    assert not driver.window.session.worker.busy
