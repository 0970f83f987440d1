"""What a file or an edit may not hold is refused where it stands, in our own words; what is only odd is shown
harmless."""

import json
from pathlib import Path

import pytest

from keelroom.document import file
from keelroom.document.edits import apply, set_value
from keelroom.document.file import load, parse, save, serialised
from keelroom.document.text import LINE, all_harmless, harmless
from keelroom.errors import DocumentError, InputError
from tests.conftest import DEMO

BUILD = load(DEMO)
LIBRARY = ("Input should", "Extra inputs", "Field required", "Value error", "pydantic", "Expecting", "type=")


def with_change(change, version=None):
    raw = (
        json.loads(serialised(BUILD))
        if version is None
        else json.loads((DEMO.parents[3] / f"tests/golden/version-{version}.keelroom").read_bytes())
    )
    change(raw)
    return json.dumps(raw)


def refusal(text):
    with pytest.raises(DocumentError) as caught:
        parse(text.encode() if isinstance(text, str) else text, Path("x.keelroom"))
    message = caught.value.message
    assert not [word for word in LIBRARY if word in message], message
    assert "\n" not in message
    return message


@pytest.mark.parametrize(
    ("change", "said"),
    [
        (lambda raw: raw["brief"].pop("title") and raw["brief"].update(title=3), "brief / title: is no text"),
        (lambda raw: raw["brief"].update(nonsense=1), "brief / nonsense: is nothing this program knows"),
        (lambda raw: raw["packages"][0]["fans"][0].pop("x"), "packages / p1 / fans / fan1 / x: is missing"),
        (
            lambda raw: raw["packages"][0]["core"].update(material="gold"),
            "core / material: is none of its choices; expected “aluminium” or “copper_brass”",
        ),
        (lambda raw: raw["packages"][0].update(fans={}), "packages / p1 / fans: is no list"),
        (lambda raw: raw["packages"][0].update(core=[]), "packages / p1 / core: is no section"),
        (
            lambda raw: (
                raw["packages"][0]["core"].update(face_width=None) or raw["packages"][0]["shroud"].update(depth=None)
            ),
            "shroud / depth: is no section",
        ),
        (lambda raw: raw["duty_cases"][0].update(ac_on="yes"), "duty_cases / idle / ac_on: is neither true nor false"),
        (
            lambda raw: raw["packages"][0]["fans"].append(raw["packages"][0]["fans"][0]),
            "the id “fan1” stands twice in packages / p1 / fans",
        ),
        (lambda raw: raw["duty_cases"][0].update(id=""), "an entry of duty_cases has no id"),
        (
            lambda raw: raw.update(duty_cases=[{**raw["duty_cases"][0], "id": f"c{k}"} for k in range(5000)]),
            "duty_cases: has 5000 entries; at most 60",
        ),
        (
            lambda raw: raw["brief"].update(notes="half \ud83d"),
            "brief / notes: holds half a character (U+D83D by itself)",
        ),
        (
            lambda raw: raw["brief"].update(title="x" * (LINE + 1)),
            "brief / title: is 20,001 characters long; at most 20,000",
        ),
    ],
)
def test_a_wrong_value_is_named_by_its_place_in_our_words(change, said):
    assert said in refusal(with_change(change))


@pytest.mark.parametrize("version", [1, 4, 8])
def test_a_number_of_401_digits_is_refused_where_it_stands_in_any_version(version):
    """Old versions are brought over by arithmetic that such a number would break."""
    text = with_change(lambda raw: raw["brief"]["engine"]["boost"].update(si="@@"), version).replace('"@@"', "9" * 401)
    assert "brief / engine / boost / si: holds 999" in refusal(text)
    assert "which is no number a build can hold" in refusal(text)


@pytest.mark.parametrize("end", ["\n", "\r\n", "\r"])
def test_a_damaged_file_names_its_line_whatever_ends_its_lines(end):
    lines = serialised(BUILD).decode().split("\n")
    lines[6] = lines[6] + " @"
    assert "is damaged at line 7" in refusal(end.join(lines))


def test_depth_is_told_by_the_file_not_by_who_asks():
    """Forty sections within each other are the limit wherever the reading begins: deep in a window's stack, or at the
    top."""
    nested = serialised(BUILD).decode().replace('"notes": "', '"notes": ' + "[\n" * 50 + '"', 1)
    line = nested[: nested.index('"notes": [')].count("\n") + 1
    message = refusal(nested)
    assert f"is nested too deeply to be a build, at line {line + 38}" in message  # two sections stand round it

    def deep(count):
        return deep(count - 1) if count else refusal(nested)

    assert deep(300) == message


def test_control_characters_of_names_are_shown_harmless_and_notes_keep_their_lines():
    changed = with_change(lambda raw: raw["brief"].update(title="one\ntwo\x1b[2J\u202ethree", notes="a\nb\tc\x07"))
    brief = parse(changed.encode(), Path("x")).brief
    assert brief.title == "one two�[2J�three"
    assert brief.notes == "a\nb\tc�"
    assert apply(BUILD, set_value(("brief", "title"), "a\r\nb", "")).brief.title == "a b"
    with pytest.raises(InputError, match="half a character"):
        apply(BUILD, set_value(("brief", "notes"), "\udc00", ""))
    assert harmless("24 3/8 – ½ ²", "name") == "24 3/8 – ½ ²"


def test_a_list_that_is_too_long_is_refused_at_the_edit_too():
    case = BUILD.duty_cases[0]
    with pytest.raises(InputError, match="Duty cases has 61 entries; at most 60 can be worked with"):
        apply(BUILD, set_value(("duty_cases",), tuple(case.model_copy(update={"id": f"c{k}"}) for k in range(61)), ""))


def test_what_could_not_be_opened_is_not_saved(tmp_path, monkeypatch):
    path = tmp_path / "a.keelroom"
    save(BUILD, path)
    before = path.read_bytes()
    monkeypatch.setattr(file, "LARGEST", 10_000)
    with pytest.raises(DocumentError, match="could not be opened again"):
        save(BUILD, path)
    assert path.read_bytes() == before


def test_hard_links_are_said(tmp_path):
    path = tmp_path / "a.keelroom"
    save(BUILD, path)
    (tmp_path / "b.keelroom").hardlink_to(path)
    assert save(BUILD, path).note == "1 other name of it (hard links) still hold what it said before"
    assert save(BUILD, path).note == ""


def test_what_never_came_from_a_file_is_looked_at_before_it_is_written(tmp_path):
    """Only what is not part of the build that was opened: a fan put two miles off by a copy nobody looked at, half a
    character."""
    path, fan = tmp_path / "a.keelroom", BUILD.package.fans[0]
    far = fan.model_copy(update={"x": fan.x.model_copy(update={"si": 9.0, "as_typed": "9 m", "unit": "m"})})
    package = BUILD.package.model_copy(update={"fans": (far, *BUILD.package.fans[1:])})
    for wrong in (
        BUILD.model_copy(update={"packages": (package, *BUILD.packages[1:])}),
        BUILD.model_copy(update={"brief": BUILD.brief.model_copy(update={"title": "\ud800"})}),
    ):
        for since in (BUILD, None):
            with pytest.raises(DocumentError):
                save(wrong, path, since=since)
    assert not path.exists()
    save(BUILD, path, since=BUILD)
    assert load(path) == BUILD


def test_a_document_is_looked_through_wherever_a_text_in_it_would_be_changed_or_refused():
    """Every sign of the first plane but those JSON keeps out of its texts, halves of characters as escapes."""
    signs = [chr(code) for code in range(0x10000) if not 0xD800 <= code < 0xE000 and chr(code) not in '"\t\n\r']
    changed = [sign for sign in signs if harmless(f"a{sign}", "name") != f"a{sign}"]
    assert len(changed) > 60
    for text in (*changed, "\\ud800", "x" * (LINE + 1)):
        assert not all_harmless(f'{{"name": "{text}"}}')
    assert all_harmless('{\r\n\t"name": "26 × 17 in, 104 °F, 2.5 mm², 24 3/8″"}')
