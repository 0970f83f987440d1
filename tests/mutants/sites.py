"""Places in the sources where one small thing can be made wrong, and the code of the function with it made wrong."""

from __future__ import annotations

import ast
import copy
from collections.abc import Iterator
from pathlib import Path
from types import CodeType
from typing import NamedTuple

import keelroom

ROOT = Path(keelroom.__file__).parent
SWAPS: dict[type, type] = {
    ast.Lt: ast.GtE,
    ast.GtE: ast.Lt,
    ast.Gt: ast.LtE,
    ast.LtE: ast.Gt,
    ast.Eq: ast.NotEq,
    ast.NotEq: ast.Eq,
    ast.Is: ast.IsNot,
    ast.IsNot: ast.Is,
    ast.In: ast.NotIn,
    ast.NotIn: ast.In,
    ast.Add: ast.Sub,
    ast.Sub: ast.Add,
    ast.Mult: ast.Div,
    ast.Div: ast.Mult,
    ast.And: ast.Or,
    ast.Or: ast.And,
}
NAMES = {
    "min": "max",
    "max": "min",
    "minimum": "maximum",
    "maximum": "minimum",
    "any": "all",
    "all": "any",
    "sin": "cos",
    "cos": "sin",
    "hypot": "dist",
}


GUARD = 1e-5
"""Constants this small keep a division or a comparison from failing; no figure hangs on them."""


class Site(NamedTuple):
    """One thing made wrong. path under src/keelroom; function: its dotted name; number: which node of the module's
    walk."""

    path: str
    function: str
    line: int
    number: int
    what: str


def sites() -> list[Site]:
    """Every place in core and assess, in a fixed order."""
    found: list[Site] = []
    for path in sorted((*(ROOT / "core").rglob("*.py"), *(ROOT / "assess").rglob("*.py"))):
        tree = ast.parse(path.read_text())
        for number, (node, function) in enumerate(_within(tree)):
            what = _change(copy.copy(node))
            if what and function:
                found.append(Site(str(path.relative_to(ROOT)), function, node.lineno, number, what))
    return found


def _within(tree: ast.Module) -> Iterator[tuple[ast.AST, str]]:
    """Expressions that compute something, with the function they stand in; sentences, annotations and defaults left
    out."""

    def walk(node: ast.AST, name: str) -> Iterator[tuple[ast.AST, str]]:
        if isinstance(node, (ast.JoinedStr, ast.Raise, ast.Assert, ast.Constant)) and not _number(node):
            return
        if isinstance(node, ast.expr) and hasattr(node, "lineno"):
            yield node, name
        if isinstance(node, (ast.FunctionDef, ast.ClassDef)):
            inner = (
                f"{name}.<locals>.{node.name}"
                if name and isinstance(node, ast.FunctionDef) and not name.endswith("#")
                else f"{name.removesuffix('#')}{'.' if name else ''}{node.name}"
            )
            for child in node.body:
                yield from walk(child, inner + ("#" if isinstance(node, ast.ClassDef) else ""))
            return
        for field, value in ast.iter_fields(node):
            if field in ("annotation", "returns", "decorator_list", "format_spec"):
                continue
            for child in value if isinstance(value, list) else [value]:
                if isinstance(child, ast.AST):
                    yield from walk(child, name)

    yield from ((node, name) for node, name in walk(tree, "") if not name.endswith("#"))


def _number(node: ast.AST) -> bool:
    return isinstance(node, ast.Constant) and isinstance(node.value, (int, float)) and not isinstance(node.value, bool)


def _change(node: ast.AST) -> str:
    """Make the node wrong; says what was done, '' where there is nothing to do."""
    if isinstance(node, ast.Compare) and type(node.ops[0]) in SWAPS:
        new = SWAPS[type(node.ops[0])]
        said = f"{type(node.ops[0]).__name__} -> {new.__name__}"
        node.ops = [new(), *node.ops[1:]]
        return said
    if isinstance(node, (ast.BinOp, ast.BoolOp)) and type(node.op) in SWAPS:
        new = SWAPS[type(node.op)]
        said = f"{type(node.op).__name__} -> {new.__name__}"
        node.op = new()
        return said
    if isinstance(node, ast.UnaryOp) and isinstance(node.op, ast.USub):
        node.op = ast.UAdd()
        return "minus dropped"
    if isinstance(node, ast.IfExp):
        node.body, node.orelse = node.orelse, node.body
        return "branches of a choice swapped"
    if isinstance(node, ast.Constant) and _number(node):
        was = node.value
        if isinstance(was, float) and 0 < abs(was) <= GUARD:
            return ""
        node.value = was + 1 if isinstance(was, int) else was * 2 if was else 1.0
        return f"{was!r} -> {node.value!r}"
    if isinstance(node, ast.Call):
        name = node.func.attr if isinstance(node.func, ast.Attribute) else getattr(node.func, "id", "")
        if name in NAMES:
            node.func = copy.copy(node.func)
            setattr(node.func, "attr" if isinstance(node.func, ast.Attribute) else "id", NAMES[name])
            return f"{name} -> {NAMES[name]}"
    return ""


def words(site: Site) -> set[str]:
    """The short texts a function holds, such as the codes of what it finds."""
    code = found(compile((ROOT / site.path).read_text(), site.path, "exec"), site.function)
    return {text for text in code.co_consts if isinstance(text, str) and 3 < len(text) < 30 and " " not in text}


def mutated(site: Site) -> CodeType:
    """The code of the function at the site, with the site made wrong."""
    path = ROOT / site.path
    tree = ast.parse(path.read_text())
    node = next(node for number, (node, _) in enumerate(_within(tree)) if number == site.number)
    _change(node)
    ast.fix_missing_locations(tree)
    return found(compile(tree, str(path), "exec"), site.function)


def found(code: CodeType, qualified: str) -> CodeType:
    """The code of a function by its dotted name, anywhere inside `code`."""
    waiting = [code]
    while waiting:
        one = waiting.pop()
        if one.co_qualname == qualified:
            return one
        waiting += [inner for inner in one.co_consts if isinstance(inner, CodeType)]
    raise LookupError(qualified)
