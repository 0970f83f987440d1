"""Whether the pages name things that exist: files, names in them, constants with their values, every source. Run by
`make lint`."""

from __future__ import annotations

import ast
import re
import sys
from pathlib import Path

ROOT = Path(__file__).parents[1]
PAGES = ("docs/architecture.md", "docs/physics.md", "CONTRIBUTING.md", "README.md")
NAMED = re.compile(r"`((?:[\w.-]+/)*[\w.-]+\.py): (\w+)(?: = ([\d.e-]+))?`")
FILES = re.compile(r"`((?:src/keelroom|tests|tools|docs|[a-z_]+)/[\w./-]+\.(?:py|md|toml))`")


def found(name: str) -> Path | None:
    """The file a page means: from the root, or from the package."""
    return next((path for path in (ROOT / name, ROOT / "src/keelroom" / name) if path.is_file()), None)


def defined(path: Path) -> dict[str, ast.expr | None]:
    """Names a module defines at its top, with their values where they are assigned."""
    names: dict[str, ast.expr | None] = {}
    for node in ast.parse(path.read_text()).body:
        if isinstance(node, ast.FunctionDef | ast.ClassDef):
            names[node.name] = None
        elif isinstance(node, ast.Assign):
            for target in node.targets:
                parts = target.elts if isinstance(target, ast.Tuple) else [target]
                values = (
                    node.value.elts
                    if isinstance(node.value, ast.Tuple) and isinstance(target, ast.Tuple)
                    else [node.value] * len(parts)
                )
                names |= {
                    part.id: value for part, value in zip(parts, values, strict=True) if isinstance(part, ast.Name)
                }
        elif isinstance(node, ast.AnnAssign) and isinstance(node.target, ast.Name):
            names[node.target.id] = node.value
    return names


def faults(page: str, text: str) -> list[str]:
    """What a page says that is not so."""
    wrong = []
    for name, what, value in NAMED.findall(text):
        path = found(name)
        if path is None:
            wrong.append(f"{page}: there is no {name}")
            continue
        names = defined(path)
        if what not in names:
            wrong.append(f"{page}: {name} defines no {what}")
        elif value:
            node = names[what]
            if not isinstance(node, ast.Constant) or float(node.value) != float(value):  # type: ignore[arg-type]
                wrong.append(f"{page}: {name}: {what} is not {value}")
    wrong += [f"{page}: there is no {name}" for name in FILES.findall(text) if found(name) is None]
    return wrong


def unnamed_sources() -> list[str]:
    """Sources of the code that the physics page does not name, and the other way round."""
    keys = set(re.findall(r'Source\("(\w+)"', (ROOT / "src/keelroom/core/sources.py").read_text()))
    named = set(re.findall(r"\b[A-Z][A-Z0-9_]{2,}\b", (ROOT / "docs/physics.md").read_text()))
    return [f"docs/physics.md: names no source {key}" for key in sorted(keys - named)]


def main() -> int:
    """Print what is wrong; 1 where anything is."""
    wrong = [fault for page in PAGES for fault in faults(page, (ROOT / page).read_text())] + unnamed_sources()
    print("\n".join(wrong) or f"{len(PAGES)} pages name only what exists")
    return bool(wrong)


if __name__ == "__main__":
    sys.exit(main())
