"""The `keelroom` command."""

from __future__ import annotations

import argparse
import json
import os
import sys
from collections.abc import Sequence
from pathlib import Path

from keelroom import ASSETS, __version__
from keelroom.errors import KeelRoomError

FINE, PROBLEMS, UNREADABLE = 0, 1, 2


def main(arguments: Sequence[str] | None = None) -> int:
    """Run one command. Returns 0 fine, 1 findings at problem level, 2 unreadable input (one sentence on stderr)."""
    options = _parser().parse_args(arguments)
    try:
        code: int = options.run(options)
        return code
    except KeelRoomError as error:
        print(f"keelroom: {error.message}", file=sys.stderr)
        return UNREADABLE
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return FINE


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="keelroom", description="Sizes a radiator core and electric fans against an engine's heat.")
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
    command("schema", "print the JSON Schema of the build format", _schema)
    sheet = command("sheet", "write the build sheet", _sheet)
    sheet.add_argument("file", type=Path)
    sheet.add_argument("-o", "--output", type=Path, required=True)
    sheet.add_argument("--units", choices=("us", "si"), default="us")
    return parser


def _assess(options: argparse.Namespace) -> int:
    from keelroom.assess.assess import assess
    from keelroom.assess.report import as_json, as_table
    from keelroom.document.edits import apply, set_value
    from keelroom.document.file import load

    build = load(options.file)
    if options.package:
        build = apply(build, set_value(("active",), options.package, ""))
    assessment = assess(build)
    print(
        json.dumps(as_json(build, assessment), indent=2, ensure_ascii=False) if options.json else as_table(build, assessment, options.units)
    )
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

    print(json.dumps(Build.model_json_schema(), indent=2, ensure_ascii=False))
    return FINE


def _sheet(options: argparse.Namespace) -> int:
    from keelroom.assess.assess import assess
    from keelroom.document.file import load
    from keelroom.export.sheet import write_sheet

    build = load(options.file)
    assessment = assess(build)
    write_sheet(build, assessment, options.output, options.units)
    return PROBLEMS if assessment.worst_level == "problem" else FINE


def _window(path: Path | None, *, demo: bool) -> int:
    from keelroom.gui.app import run

    if not demo:
        return int(run(path))
    return int(run(ASSETS / "demo.keelroom", as_copy=True))
