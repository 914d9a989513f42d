"""Rules that contradict one another by arithmetic alone: lengths against classes."""

from dataclasses import dataclass

from newknot.core.policy.policy_rules import PolicyRules


@dataclass(frozen=True, slots=True)
class Conflict:
    """Rules (field names) that cannot hold together, said in one sentence.

    frees: a single change that would make it satisfiable, where one was found; also_frees: the
    others, one for each rule that can. is_decided False:
    nothing that satisfies it was found, and no contradiction either; rules is empty then.
    """

    rules: tuple[str, ...]
    says: str
    frees: str = ""
    also_frees: tuple[str, ...] = ()
    is_decided: bool = True


def contradiction(policy: PolicyRules) -> Conflict | None:
    """The first contradiction among lengths and classes, or None where there is none."""
    if policy.min_length > policy.max_length:
        says = f"at least {policy.min_length} but at most {policy.max_length} characters"
        return Conflict(("min_length", "max_length"), says)
    classes = policy.usable_classes()
    if not any(c.characters and c.maximum != 0 for c in classes):
        return Conflict(("classes", "excluded"), "no character is left to draw from")
    for c in classes:
        if c.minimum and not c.characters:
            says = f"{c.minimum} of {c.name} wanted, but all of them are left out"
            return Conflict(("classes", "excluded"), says)
        if c.maximum is not None and c.minimum > c.maximum:
            return Conflict(("classes",), f"{c.name}: at least {c.minimum}, at most {c.maximum}")
    needed = sum(c.minimum for c in classes)
    if needed > policy.max_length:
        parts = " + ".join(f"{c.minimum} {c.name}" for c in classes if c.minimum)
        says = f"{parts} need {needed}, the site takes {policy.max_length}"
        return Conflict(("classes", "max_length"), says)
    usable = [c for c in classes if c.characters and c.maximum != 0]
    if policy.min_classes > len(usable):
        says = f"{policy.min_classes} kinds of character wanted, {len(usable)} are there"
        return Conflict(("min_classes", "classes"), says)
    if all(c.maximum is not None for c in usable):
        room = sum(c.maximum or 0 for c in usable)
        if room < policy.min_length:
            says = f"the classes together allow {room} characters, {policy.min_length} are needed"
            return Conflict(("classes", "min_length"), says)
    bare = sum(1 for c in usable if c.minimum)
    extra = max(0, policy.min_classes - bare)
    if needed + extra > policy.max_length:
        says = f"{needed + extra} characters are needed, the site takes {policy.max_length}"
        return Conflict(("min_classes", "classes", "max_length"), says)
    return None
