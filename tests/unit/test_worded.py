"""Sentences made of codes and figures: in one unit system, by whole templates, and every table held against what is
raised."""

import ast
import re
from pathlib import Path
from string import Formatter
from typing import get_args

import pytest

import keelroom
from keelroom.assess.assess import assess, first_wave
from keelroom.assess.fit.moves import CAUTIONED, NEEDED, RETRIED
from keelroom.assess.loop.air import OUTCOME_WORDS
from keelroom.assess.machine_form import as_json
from keelroom.assess.words import CODES, SENTENCES, TOPICS, WORDED, clause, worded
from keelroom.document.file import load
from keelroom.document.schema.loop import Hose
from keelroom.document.schema.mounts import Bracket
from keelroom.document.schema.package import Core, Shroud
from keelroom.facts import FACT, WORDS, Fact, articled, fact, given, said
from keelroom.units import KINDS
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
METRIC, IMPERIAL = (
    re.compile(r"\d (mm|cm|°C|kPa|L/min|km/h|L|K|N)\b"),
    re.compile(r"\d (in(?! 10)|°F|psi|gpm|mph|qt|hp|CFM|ft|lbf)\b"),
)


@pytest.mark.parametrize(
    ("template", "figures", "us", "si"),
    [
        ("{wide} wide", {"wide": (0.1524, "length")}, "6 in wide", "152.4 mm wide"),
        (
            "{t} and {rise} over",
            {"t": (100.0, "temperature"), "rise": (5.0, "temperature difference")},
            "212 °F and 9 °F over",
            "100 °C and 5 K over",
        ),
        ("{share:.0%} of it", {"share": (0.25, "share")}, "25% of it", "25% of it"),
        ("{n} {n:cause|causes}", {"n": 1}, "1 cause", "1 cause"),
        ("{n} {n:cause|causes}", {"n": 3}, "3 causes", "3 causes"),
        ("{a:first2}", {"a": ("x", "y", "z", "q")}, "x, y and 2 more", "x, y and 2 more"),
        ("{a:and}", {"a": ("x", "y")}, "x and y", "x and y"),
        ("{a:and g} A", {"a": ((7.5, 10.0), "current")}, "7.5 and 10 A", "7.5 and 10 A"),
        ("[10 °F|6 K] less", {}, "10 °F less", "6 K less"),
        ("{s:stress}", {"s": (248.2e6, "pressure")}, "36 ksi", "248 MPa"),
        ("{m:torque}", {"m": (27.12, "number")}, "20 lb·ft", "27 N·m"),
        ("{t:fine}", {"t": (1.27e-3, "length")}, "0.050 in", "1.27 mm"),
        ("{name:low} here", {"name": "Upper hose"}, "upper hose here", "upper hose here"),
        ("{name:low}", {"name": "A/C"}, "A/C", "A/C"),
        ("so.{more:then}", {"more": None}, "so.", "so."),
        ("so.{more:then}", {"more": fact("renew")}, "so. to be renewed", "so. to be renewed"),
        ("{c:chance}", {"c": (0.17, "share")}, "about 1 in 6", "about 1 in 6"),
        ("{d:duration}, {d:minutes}", {"d": 89.0}, "89 s, 1 min", "89 s, 1 min"),
    ],
)
def test_a_template_makes_one_sentence_in_one_unit_system(template, figures, us, si):
    """Values by hand: 6 in are 152.4 mm, 36 ksi 248.2 MPa, 20 lb ft 27.12 N m."""
    assert said(template, given(**figures), "us", WORDED) == us
    assert said(template, given(**figures), "si", WORDED) == si


def test_a_sentence_speaks_one_unit_system_and_every_figure_leaves_with_its_kind():
    found = assess(on(BUILD, (("active",), "p3")))
    assert len(found.findings) > 10
    for finding in found.findings:
        bare = finding._replace(
            figures=tuple(figure._replace(value="") if figure.kind == WORDS else figure for figure in finding.figures)
        )
        us, metric = (" ".join(worded(bare, system)) for system in ("us", "si"))
        assert not METRIC.search(us), us
        assert not IMPERIAL.search(metric), metric
    for system in ("us", "si"):
        told = as_json(found, system)
        for one, finding in zip(told["findings"], found.findings, strict=True):
            assert (one["what"], one["why"]) == worded(finding, system)
            assert set(one["figures"]) == {figure.key for figure in finding.figures}
            assert one["rests_on"][0] == list(finding.where)
            measures = [
                figure for figure in one["figures"].values() if isinstance(figure, dict) and figure["kind"] in KINDS
            ]
            assert all(figure["unit"] == KINDS[figure["kind"]].units[0].symbol for figure in measures)


def _keys(template):
    return {name for _, name, _, _ in Formatter().parse(re.sub(r"\[[^|\[\]]*\|[^\[\]]*\]", "", template)) if name}


def _made(name):
    """Codes and the figures given with each, as the sources spell them."""
    for path in Path(keelroom.__file__).parent.rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.Call) and getattr(node.func, "id", "") == name and node.args:
                yield node


def test_every_clause_is_worded_and_every_wording_is_used():
    codes = {str(node.args[0].value) for node in _made("fact") if isinstance(node.args[0], ast.Constant)}
    paths = [path for path in Path(keelroom.__file__).parent.rglob("*.py") if "words" not in path.parts[:-1]]
    paths.append(Path(keelroom.__file__).parent / "assess/words/__init__.py")
    spelt = {code for path in paths for code in re.findall(r'"([a-z_]+(?:\.[a-z_0-9]+)?)"', path.read_text())}
    assert codes <= set(WORDED)
    formed = re.compile(r"(nut|seam|safety|retried|bleed|move_needed|barely_strong|hums)(\..*)?")
    unused = {code for code in set(WORDED) - set(SENTENCES) - spelt if not formed.fullmatch(code)}
    assert not unused
    told = [code for topic in TOPICS for code in topic.TOLD]
    assert len(told) == len(set(told)), "told in two topics"
    assert {code.partition(".")[0] for code in SENTENCES} == set(CODES), (
        "a sentence for every code, and none for no code"
    )


def test_every_figure_a_clause_wants_is_given_with_it():
    lacking = []
    for node in _made("fact"):
        first = node.args[0]
        if isinstance(first, ast.Constant) and not any(keyword.arg is None for keyword in node.keywords):
            lacking += [
                (first.value, key) for key in _keys(WORDED[first.value]) - {keyword.arg for keyword in node.keywords}
            ]
    assert not lacking


def test_every_finding_that_is_spelt_out_has_its_sentence_and_its_figures():
    lacking, spelt = [], 0
    for node in _made("Finding"):
        told = {keyword.arg: keyword.value for keyword in node.keywords}
        form, given_to = told.get("form", ast.Constant("")), node.args[3] if len(node.args) > 3 else None
        if not (isinstance(node.args[0], ast.Constant) and isinstance(form, ast.Constant)):
            continue
        code = f"{node.args[0].value}.{form.value}" if form.value else node.args[0].value
        spelt += 1
        if given_to is None or getattr(given_to.func if isinstance(given_to, ast.Call) else None, "id", "") == "given":
            names = {keyword.arg for keyword in given_to.keywords} if given_to else set()
            lacking += [(code, key) for text in SENTENCES[code] for key in _keys(text) - names if None not in names]
    assert not lacking
    assert spelt > 150


def test_a_fact_in_a_fact_is_worded_and_leaves_as_one():
    gives, when = fact("gives", amps=(48.0, "current")), fact("at_idle")
    told = fact("wanted", wanted=(52.0, "current"), when=when, given=gives, short=None)
    assert clause(told, "us") == "With what is on, 52 A are wanted at idle; the alternator gives 48 A hot."
    assert told.figures[2].kind == told.figures[3].kind == FACT
    assert isinstance(told.figures[2].value, Fact)


def test_a_finding_says_which_entries_it_rests_on():
    found = first_wave(on(BUILD, (("packages", "p1", "control", "fan_on"), "170 °F", "temperature")))
    (apart,) = [finding for finding in found.findings if finding.code == "fan_set_points"]
    assert apart.rests_on == (("packages", "p1", "control", "fan_on"), ("packages", "p1", "control", "fan_off"))


def test_every_form_a_choice_can_take_has_its_words():
    choices = {
        "core_port_closing": get_args(Core.model_fields["material"].annotation),
        "seam": get_args(Shroud.model_fields["join_seal"].annotation),
        "nut": get_args(Bracket.model_fields["nut"].annotation),
        "hose_old": [one for one in get_args(Hose.model_fields["state"].annotation) if one != "good"],
        "bleed": OUTCOME_WORDS,
        "bores_differ": ("sleeve", "reducer"),
        "air_trap": ("stays", "revs", "may"),
        "safety": CAUTIONED.values(),
        "retried": RETRIED,
        "move_needed": (*NEEDED, "bottle"),
    }
    assert {f"{code}.{form}" for code, forms in choices.items() for form in forms} <= set(WORDED)
    states = [f"fit_{state}{form}" for state in ("overlaps", "under") for form in ("", ".even", ".hood", ".hoodeven")]
    assert set(states) <= set(SENTENCES)


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("A 80 A fuse", "An 80 A fuse"),
        ("with a 8 AWG wire", "with an 8 AWG wire"),
        ("a 11 in fan, a 18 A unit", "an 11 in fan, an 18 A unit"),
        ("a 110 A unit, a 180 A one", "a 110 A unit, a 180 A one"),
        ("40 A 8 AWG feed", "40 A 8 AWG feed"),
    ],
)
def test_a_number_spoken_with_a_vowel_takes_an(text, told):
    assert articled(text) == told
