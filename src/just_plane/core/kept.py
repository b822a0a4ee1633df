"""Stages that are kept by what they depend on: asked again for the same, they give back the same object.

While a hand drags one limit of the subject, the rig is the same rig; working it out once a drag, not once a move, is
most of what makes the answer quick. Nothing outside can tell that a result was kept: inputs are compared by ``==``,
results are frozen, and what a stage has to say is part of its result.
"""

from typing import Any

MOST = 6
"""Results kept of a stage: two hands on two shots, each with the last few answers."""


class Kept:
    """A function of values whose last results are kept.

    Parameters
    ----------
    work : callable   A pure function of positional arguments that can be compared; what it raises is not kept.
    most : int        Results kept.
    """

    def __init__(self, work, most=MOST):
        self.work = work
        self.most = most
        # Replaced whole, never changed: threads that meet here at worst work something out twice.
        self.entries: tuple[tuple[tuple, Any], ...] = ()

    def __call__(self, *inputs):
        for entry in self.entries:
            if entry[0] == inputs:
                return entry[1]
        result = self.work(*inputs)
        self.entries = ((inputs, result), *self.entries[: self.most - 1])
        return result
