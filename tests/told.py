"""What a finding, a fault or a fact says, for tests that read sentences."""

from keelroom.assess.words import clause, worded


def what_of(finding, system="us"):
    """The first sentence of a finding."""
    return worded(finding, system).what


def why_of(finding, system="us"):
    """The rest of it."""
    return worded(finding, system).why


def said_by(fact, system="us"):
    """The clause of a fact, or of what carries one."""
    return clause(getattr(fact, "fact", fact), system)
