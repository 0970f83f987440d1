"""The `keelroom` command."""

from __future__ import annotations

import argparse
import json
import os
import sys
from collections.abc import Sequence
from contextlib import suppress
from pathlib import Path
from typing import TYPE_CHECKING, TextIO

from keelroom import ASSETS, __version__
from keelroom.errors import UNREADABLE, KeelRoomError, readable

if TYPE_CHECKING:
    from keelroom.assess.figures.assessment import Assessment
    from keelroom.assess.options.space import Bounds
    from keelroom.assess.questions.chosen import Chosen

FINE, PROBLEMS = 0, 1


def main(arguments: Sequence[str] | None = None) -> int:
    """Run one command. Returns 0 fine; 1 findings at problem level and nothing else; 2 with one sentence on stderr
    for everything that
    was not done: input that cannot be read, output that cannot be written or printed, something wrong inside."""
    options = _parser().parse_args(arguments)
    try:
        code: int = options.run(options)
        _flush()
        return code
    except KeelRoomError as error:
        return _refused(error.message)
    except BrokenPipeError:
        _away(sys.stdout)
        return FINE
    except UnicodeEncodeError as error:
        return _refused(
            f"this terminal’s encoding ({error.encoding}) cannot print the answer; use a UTF-8 one, or --json"
        )
    except OSError as error:
        _away(sys.stdout)
        return _refused(f"the answer could not be written: {error.strerror or 'the system refused'}")
    except KeyboardInterrupt:
        return _refused("stopped before it was done; nothing was changed")
    except Exception as error:  # a fault of this program: one sentence, never a traceback
        from keelroom.assess.outcome import inside_words

        return _refused(f"{inside_words(error)}; nothing was changed")


def _refused(sentence: str) -> int:
    """Say why on stderr, in letters any terminal has where it has no others."""
    line = f"keelroom: {readable(sentence, 900)}\n"
    try:
        encoding = sys.stderr.encoding or "ascii"
        sys.stderr.write(line.encode(encoding, "backslashreplace").decode(encoding))
        sys.stderr.flush()
    except (OSError, AttributeError):  # AttributeError: it was closed before we began
        _away(sys.stderr)
    return UNREADABLE


def _flush() -> None:
    if sys.stdout is not None:
        sys.stdout.flush()


def _away(stream: TextIO | None) -> None:
    """What is still to be written there goes nowhere: the interpreter would try again at its end, and fail again."""
    if stream is None:
        return
    nowhere = os.open(os.devnull, os.O_WRONLY)
    os.dup2(nowhere, stream.fileno())
    os.close(nowhere)


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="keelroom", description="Sizes a radiator core and electric fans against an engine's heat."
    )
    parser.add_argument("--version", action="version", version=f"keelroom {__version__}")
    parser.set_defaults(run=lambda options: _window(None, demo=False))
    commands = parser.add_subparsers(title="commands")

    def command(name: str, text: str, run: object) -> argparse.ArgumentParser:
        sub = commands.add_parser(name, help=text, description=text)
        sub.set_defaults(run=run)
        return sub

    assess = command("assess", "print the judgement of a build", _assess)
    assess.add_argument("file", type=Path)
    assess.add_argument("--json", action="store_true", help="machine form, SI")
    assess.add_argument("--units", choices=("us", "si"), default="us")
    assess.add_argument("--package", help="id of a package other than the active one")
    new = command("new", "write a new build", _new)
    new.add_argument("file", type=Path)
    command("demo", "open the window on the shipped demo", lambda options: _window(None, demo=True))
    opened = command("open", "open the window on a build", lambda options: _window(options.file, demo=False))
    opened.add_argument("file", type=Path, nargs="?")
    schema = command("schema", "print the JSON Schema of the build format, or what a judgement can say", _schema)
    schema.add_argument(
        "what",
        nargs="?",
        choices=("build", "judgement"),
        default="build",
        help="judgement: codes of findings and acts, keys of figures",
    )
    standin = command("standin", "a simulated car or logger on a port of its own, to read live from", _standin)
    standin.add_argument("kind", choices=("car", "logger"))
    standin.add_argument("file", type=Path)
    standin.add_argument("--schedule", help="id of the drive it answers from; the first where none is named")
    standin.add_argument("--pace", type=float, default=1.0, help="seconds of the drive in one of ours")
    standin.add_argument("--noise", type=float, default=0.0, help="standard, kelvin")
    standin.add_argument("--lag", type=float, default=0.0, help="seconds before an answer")
    standin.add_argument("--dropouts", type=float, default=0.0, help="share of answers that do not come")
    standin.add_argument("--clock", type=float, default=1.0, help="times as fast as a logger's clock should be")
    standin.add_argument("--dies", type=float, default=0.0, help="seconds after which it is pulled out")
    trials = command("trials", "what trials should read and did, and what they tell together", _trials)
    trials.add_argument("file", type=Path)
    trials.add_argument("--json", action="store_true", help="machine form, SI")
    trials.add_argument("--units", choices=("us", "si"), default="us")
    drive = command("drive", "drive a package through a schedule over time", _drive)
    drive.add_argument("file", type=Path)
    drive.add_argument("--schedule", help="id of a schedule of the build; all of them where none is named")
    drive.add_argument("--package", help="id of a package other than the active one")
    drive.add_argument("--csv", type=Path, help="write the drive moment by moment")
    drive.add_argument("--json", action="store_true", help="machine form, SI")
    drive.add_argument("--units", choices=("us", "si"), default="us")
    work = command("work", "the plan of a package's work, its hours and money, what is bought", _work)
    _work_options(work)
    options = command("options", "every package there could be, and what nothing beats", _options)
    _options_options(options)
    sheet = command("sheet", "write the build sheet", _sheet)
    sheet.add_argument("file", type=Path)
    sheet.add_argument("-o", "--output", type=Path, required=True)
    sheet.add_argument("--units", choices=("us", "si"), default="us")
    return parser


def _options_options(options: argparse.ArgumentParser) -> None:
    options.add_argument("file", type=Path)
    options.add_argument("--json", action="store_true", help="machine form, SI")
    options.add_argument("--why", default="", metavar="TEXT", help="where those with TEXT in their name stand")
    options.add_argument("--units", choices=("us", "si"), default="us")


def _work_options(work: argparse.ArgumentParser) -> None:
    work.add_argument("file", type=Path)
    work.add_argument("--package", help="id of a package other than the active one")
    work.add_argument("--csv", type=Path, help="write the shopping list")
    work.add_argument("--ics", type=Path, help="write the work as appointments of a calendar")
    work.add_argument("--record", type=Path, help="write the record that is handed over (PDF)")
    work.add_argument("--json", action="store_true", help="machine form, SI")
    work.add_argument("--units", choices=("us", "si"), default="us")


def _assess(options: argparse.Namespace) -> int:
    from keelroom.assess.assess import assess
    from keelroom.assess.machine_form import as_json
    from keelroom.assess.report import as_table
    from keelroom.document.edits import apply, set_value
    from keelroom.document.file import load

    build = load(options.file)
    if options.package:
        build = apply(build, set_value(("active",), options.package, ""))
    assessment = assess(build)
    print(_json(as_json(assessment, options.units)) if options.json else as_table(assessment, options.units))
    return _code_of(assessment)


def _json(value: object) -> str:
    """JSON in letters this terminal can print: all of them where it is a UTF-8 one, else escaped."""
    plain = "utf" not in (getattr(sys.stdout, "encoding", None) or "").lower()
    return json.dumps(value, indent=2, ensure_ascii=plain)


def _code_of(assessment: Assessment) -> int:
    """The exit code of a judgement: where something went wrong inside, what stands is not all of it."""
    from keelroom.assess.words import worded

    broken = next((finding for finding in assessment.findings if finding.report), None)
    if broken is not None:
        _flush()
        return _refused(": ".join(worded(broken, "us")))
    return PROBLEMS if assessment.worst_level == "problem" else FINE


def _new(options: argparse.Namespace) -> int:
    from keelroom.assess.defaults import new_build
    from keelroom.document.file import save
    from keelroom.errors import DocumentError

    if options.file.exists():
        raise DocumentError("exists", f"{options.file.name} exists already; choose another name")
    save(new_build(), options.file)
    return FINE


def _schema(options: argparse.Namespace) -> int:
    from keelroom.document.schema.build import Build

    print(_json(_vocabulary() if options.what == "judgement" else Build.model_json_schema()))
    return FINE


def _vocabulary() -> dict[str, object]:
    """What the machine form of a judgement is made of: codes of findings, acts that mend them and figures, each with
    what it means."""
    from keelroom.assess.acts.registry import acts
    from keelroom.assess.figures.outputs import CASE, PACKAGE
    from keelroom.assess.words import CODES

    figures = [
        {
            "of": of,
            "key": output.key,
            "label": output.label,
            "kind": output.kind,
            "better": output.better,
            "compares": output.compares,
        }
        for of, outputs in (("case", CASE), ("package", PACKAGE))
        for output in outputs
    ]
    return {"findings": CODES, "acts": {code: kind.meaning for code, kind in acts().items()}, "figures": figures}


def _standin(options: argparse.Namespace) -> int:
    from keelroom.assess.drives.driven import Driven, drive_of
    from keelroom.assess.drives.lines import lines_of
    from keelroom.devices.standin import MAKERS, Faults, Lines
    from keelroom.document.file import load
    from keelroom.errors import InputError

    build = load(options.file)
    there = {one.id: one for one in build.driving.schedules}
    if not there or (options.schedule and options.schedule not in there):
        raise InputError("no_such_drive", f"There is no such drive; there are {', '.join(there) or 'none'}")
    found = drive_of(build, build.package, there[options.schedule or next(iter(there))], bands=False)
    if not isinstance(found, Driven):
        raise InputError("no_drive", found.sentence)
    lines = lines_of(found)
    of_drive = {"car": ("coolant out", "volts", "speed"), "logger": ("coolant out", "coolant back", "volts")}
    names = {"coolant out": "coolant" if options.kind == "car" else "Upper hose, probe"}
    names |= {"coolant back": "Lower hose, infrared gun", "volts": "volts", "speed": "speed"}
    if options.kind == "logger":
        names = {key: name.replace(",", "") for key, name in names.items()}
    figures = {names[key]: lines[key] for key in of_drive[options.kind]}
    faults = Faults(options.noise, options.lag, options.dropouts, options.clock, options.dies)
    one = MAKERS[options.kind](Lines(lines["time s"], figures, options.pace), faults)
    print(f"{options.kind}: {one.port}", flush=True)
    with suppress(KeyboardInterrupt):
        one.thread.join()
    one.stop()
    return 0


def _trials(options: argparse.Namespace) -> int:
    from keelroom.assess.outcome import Stopped
    from keelroom.assess.questions.hot_day import as_data, learn
    from keelroom.assess.trials.expected import foretold
    from keelroom.assess.trials.judged import judged
    from keelroom.assess.trials.words import expect_words, learnt_words, trial_words
    from keelroom.document.file import load

    build = load(options.file)
    if options.json:
        print(_json(as_data(learn(build))))
        return 0
    for trial in build.logbook.trials:
        print(trial.name)
        for _, words in trial_words(build, trial, judged(build, trial), options.units):
            print(f"  {words}")
        found = foretold(build, trial)
        for one in () if isinstance(found, Stopped) else found.expects:
            print(f"  {one.sensor.name}: {expect_words(one, options.units)}")
    learnt = learn(build)
    for _, words in learnt_words(learnt.fitted, options.units):
        print(words)
    return 0


def _drive(options: argparse.Namespace) -> int:
    from keelroom.assess.drives.driven import Driven, drive_of, lacks
    from keelroom.assess.drives.words import as_data, headline, table
    from keelroom.assess.words.calibrated import calibrated_by
    from keelroom.document.file import load
    from keelroom.errors import InputError
    from keelroom.export.tables import write_csv

    build = load(options.file)
    there = build.driving.schedules
    wanted = [one for one in there if options.schedule in (None, one.id)]
    package = next((one for one in build.packages if one.id == (options.package or build.active)), None)
    if not wanted or package is None:
        known = ", ".join(one.id for one in (there if not wanted else build.packages)) or "none"
        raise InputError("no_such_drive", f"There is no such {'drive' if not wanted else 'package'}; there are {known}")
    if lacks(build, package):
        raise InputError("drive_lacks", "Something of the car is missing that a drive needs: assess says what")
    if options.csv and len(wanted) > 1:
        raise InputError("which_drive", "Name the drive that is to be written: --schedule")
    told, code = [], FINE
    for schedule in wanted:
        found = drive_of(build, package, schedule)
        if not isinstance(found, Driven):
            raise InputError("no_drive", found.sentence)
        lines = headline(found, options.units)
        code = PROBLEMS if any(role == "problem" for role, _ in lines) else code
        told.append(as_data(found, options.units))
        if options.csv:
            write_csv(table(found, options.units), options.csv)
        if not options.json:
            by = calibrated_by(build.calibration)
            head = f"{schedule.name or schedule.id}{', ' + by if by else ''}"
            print("\n".join([head, *(f"  {words}" for _, words in lines)]))
    if options.json:
        print(_json(told[0] if options.schedule else told))
    return code


def _work(options: argparse.Namespace) -> int:
    from keelroom.assess.assess import assess
    from keelroom.assess.questions.record import owners_page, record, why_hours, work_data
    from keelroom.assess.work.money import estimated
    from keelroom.assess.work.plan import planned
    from keelroom.assess.work.shopping import shopping
    from keelroom.document.file import load
    from keelroom.errors import InputError

    build = load(options.file)
    package = next((one for one in build.packages if one.id == (options.package or build.active)), None)
    if package is None:
        known = ", ".join(one.id for one in build.packages) or "none"
        raise InputError("no_such_package", f"There is no such package; there are {known}")
    plan = planned(build, package)
    estimate = estimated(build, package, plan)
    if options.csv:
        from keelroom.export.tables import write_csv
        from keelroom.export.work_sheets import shopping_rows

        write_csv(shopping_rows(shopping(build, package), "", options.units), options.csv)
    if options.ics:
        from keelroom.export.calendar import write_calendar

        write_calendar(plan, build.brief.title or "Cooling", options.ics)
    if options.record:
        from keelroom.export.work_sheets import write_record

        whole = assess(build, package.id)
        parts = (
            ("For the next shop", record(whole, plan, options.units)),
            ("For the owner", owners_page(whole, plan, options.units)),
        )
        write_record(options.record, build.brief.title or "Record", parts, plan, ("Letter", options.file))
    if options.json:
        print(_json(work_data(plan, estimate)))
    else:
        print("\n".join(why_hours(build, package, plan, estimate)))
        print("\n".join(f"{'x' if step.key in plan.done else ' '} {step.words}" for step in plan.steps))
    return FINE


def _options(options: argparse.Namespace) -> int:
    from keelroom.assess.assess import first_wave
    from keelroom.assess.figures.shared_out import over_processes
    from keelroom.assess.options.space import bounds_of
    from keelroom.assess.questions.chosen import as_data, chosen, plain_words
    from keelroom.assess.questions.options import searched
    from keelroom.assess.questions.standing import day_words
    from keelroom.assess.report import first_needed
    from keelroom.document.file import load
    from keelroom.errors import InputError

    build = load(options.file)
    needed = first_needed(first_wave(build))
    if needed:
        raise InputError("options_need", f"First needed: {needed}")
    told = chosen(searched(build, bounds_of(build.choosing), build.choosing.aims, shared=over_processes), build)
    if options.json:
        print(_json(as_data(told)))
        return FINE
    if options.why:
        return _why_out(told, bounds_of(build.choosing), options)
    space, front = told.found.space, len(told.found.front)
    print(f"{space.left} of {space.new} packages keep to the bounds; {front} no other of them beats.")
    print(*plain_words(told, build, ""), sep="\n")
    for n, one in enumerate(told.rows):
        day = day_words(one.worst, options.units)
        small = f"too small in {100 * told.regret.too_small[n]:.0f} of 100"
        takes = f"{one.priced.money:.0f}, {one.priced.hours / 3600:.0f} h, {one.priced.amps:.0f} A"
        print(f"  {day}  {takes}, {small}: {one.option.words}")
    return FINE


def _why_out(told: Chosen, bounds: Bounds, options: argparse.Namespace) -> int:
    """Where options with a text in their name stand."""
    from keelroom.assess.questions.standing import standing_words, standings
    from keelroom.errors import InputError

    wanted = options.why.casefold()
    found = [one for one in standings(told.found, bounds) if wanted in one.priced.option.words.casefold()]
    if not found:
        raise InputError("no_such_option", f"No option has “{options.why}” in its name")
    for one in found:
        print(f"{one.priced.option.words}: {standing_words(one, bounds, options.units, '')}")
    return FINE


def _sheet(options: argparse.Namespace) -> int:
    from keelroom.assess.assess import assess
    from keelroom.document.file import load
    from keelroom.export.sheet import write_sheet
    from keelroom.export.whole import not_a_build

    not_a_build(options.output, options.file)
    assessment = assess(load(options.file))
    write_sheet(assessment, options.output, options.units, file=options.file)
    return _code_of(assessment)


def _window(path: Path | None, *, demo: bool) -> int:
    try:
        from keelroom.gui.app import run
    except ImportError as error:
        raise KeelRoomError("no_window", f"The window’s libraries cannot be loaded: {error}") from None

    if not demo:
        return int(run(path))
    return int(run(ASSETS / "demo.keelroom", as_copy=True))
