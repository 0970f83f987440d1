"""What can be done to a build, said as data: which act, to which package and part, with what figures."""

from __future__ import annotations

from typing import NamedTuple


class Act(NamedTuple):
    """One act; `assess.acts` makes the edit it stands for.

    code    : name of its kind in the registry of acts
    label   : what it is called where it is offered, and in the trail
    package : id of the package it is about, '' where it is about the whole build; never “the active one”
    given   : what else it needs to know, by name, as text
    path    : the field or part it is about, step by step, where it is one
    """

    code: str
    label: str
    package: str = ""
    given: tuple[tuple[str, str], ...] = ()
    path: tuple[str, ...] = ()
