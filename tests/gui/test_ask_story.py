"""One search finds pages, fields, parts, findings, acts and topics, and goes there; the guide leads back to pages."""

from urllib.parse import quote

import pytest
from PyQt6.QtCore import Qt, QUrl
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from keelroom.gui.guide import linked, matching, topics
from keelroom.gui.widgets.panels.ask import Answer, answers_to, rank, stem, wanted_words

OWNERS_ASK = {
    "overheats at a light": "overheats",
    "my car runs hot when towing": "overheats",
    "how big a radiator": "how-big",
    "which fan": "which-fan",
    "one or two fans": "which-fan",
    "gauge climbs after I stop": "after-i-stop",
    "what wire and fuse": "which-wire",
    "refrigerant": "coolers",
    "bench mode": "will-it-fit",
}
"""what owners ask, in their words, and the topic that answers it (common practice, no source)"""


@pytest.mark.parametrize(("question", "topic"), OWNERS_ASK.items())
def test_the_guide_answers_what_owners_ask(question, topic):
    every = tuple(Answer(one.title, "Guide", lambda: None, one.text) for one in topics())
    found = answers_to(question, every)
    title = next(one.title for one in topics() if one.name == topic)
    assert title in [one.text for one in found[:5]]


def test_words_are_met_by_their_stems_and_idle_ones_left_out():
    assert [stem(word) for word in ("overheats", "towing", "fuses", "gas", "bleed")] == [
        "overheat",
        "towing",
        "fuse",
        "gas",
        "bleed",
    ]
    assert wanted_words("How big is it?") == ["big"]
    assert wanted_words("what is it") == ["what", "is", "it"]
    near = Answer("Fan cost", "Field, Air: Fan 1", lambda: None)
    far = Answer("Blades", "Field, Air: Fan 1", lambda: None, "cost")
    assert rank(near, ["fan", "cost"]) == (0, 0)
    assert rank(far, ["fan", "cost"]) == (0, 4 + 9)
    assert answers_to("fan cost", (far, near)) == [near, far]
    assert answers_to("zebra", (near, far)) == []
    assert answers_to("fan zebra", (far, near)) == [near, far], "where none has all words, those that lack fewest"


def ask(driver, words, wanted):
    driver.ctrl(Qt.Key.Key_E)
    panel = driver.window.drawers.panels["Ask"]
    panel.filter.clear()
    QTest.keyClicks(driver.find("Ask"), words)
    driver.until(lambda: any(wanted in one.text for one in panel.found))
    row = next(k for k, one in enumerate(panel.found) if wanted in one.text)
    item = panel.list.item(row)
    panel.list.scrollToItem(item)
    at = panel.list.visualItemRect(item).center()
    QTest.mouseClick(panel.list.viewport(), Qt.MouseButton.LeftButton, pos=at)
    QApplication.processEvents()


def test_what_is_asked_for_is_gone_to(demo_window):
    driver, window = demo_window, demo_window.window
    ask(driver, "driveline", "Driveline efficiency")
    assert driver.find("Driveline efficiency").isVisible()
    assert driver.find("Driveline efficiency").hasFocus(), "a field has the cursor"
    ask(driver, "more fins or depth", "Would more fins")
    assert (window.shown_station, window.stations["Core"].current) == ("Core", "Sweeps")
    ask(driver, "schools of control", "Schools")
    assert (window.shown_station, window.stations["Electrical"].current) == ("Electrical", "Schools")
    ask(driver, "second wash bottle", "Washer bottle")
    assert (window.shown_station, window.stations["Survey"].current) == ("Survey", "In the way")
    ask(driver, "rule out cheap causes", "Rule out")
    card = next(card for card in window.drawers.panels["Findings"].cards if card.isVisible() and card.head.open)
    assert card.finding.code == "unchecked_causes" or "Rule out" in card.head.accessibleName()
    assert window.drawers.out == "Findings"


def test_f1_opens_the_page_s_own_topic_and_its_links_lead_back(demo_window):
    driver, window = demo_window, demo_window.window
    driver.turn("Explain")
    driver.key(Qt.Key.Key_F1)
    guide = window.guide_window
    assert guide.list.currentItem().text() == "It overheats: where do I look?"
    guide.page.anchorClicked.emit(QUrl(f"page:{quote('Aux coolers/Gearbox')}"))
    assert (window.shown_station, window.stations["Aux coolers"].current) == ("Aux coolers", "Gearbox")
    guide.reject()


def test_every_page_the_guide_speaks_of_is_a_link():
    assert linked("at **Core, Sweeps**.") == "at **Core**, [**Sweeps**](page:Core/Sweeps)."
    assert linked("**Air, Fans and Shroud**") == "**Air**, [**Fans**](page:Air/Fans) and [**Shroud**](page:Air/Shroud)"
    assert linked("**Survey, Hood, rails**") == "**Survey**, [**Hood, rails**](page:Survey/Hood%2C%20rails)"
    assert linked("**Brief, Ran hot**") == "**Brief**, [**Ran hot**](page:Brief/Before)"
    assert linked("**Hold** (F6)") == "**Hold** (F6)"
    assert matching("overheating towing")[0].name == "overheats"
