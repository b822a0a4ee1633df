"""Numbers as a photographer reads them: millimetres or inches, stops, seconds, frames."""

import math
from dataclasses import dataclass
from typing import Literal

from just_plane.core.shutters import marked_shutter
from just_plane.core.units import MM_PER_INCH, UM_PER_MM

NOTHING = 5e-7
"""mm under which a length is spoken of as none: half a nanometre."""
Units = Literal["mm", "in"]


@dataclass(frozen=True, slots=True)
class Wording:
    """How lengths are spoken."""

    units: Units = "mm"

    def length(self, mm):
        """A length with its unit: ``0.45 mm``, ``38 µm``, ``3.2 in``; none is none, on whichever side of it."""
        if abs(mm) < NOTHING:
            mm = 0.0
        if abs(mm) < 0.0995 and mm != 0:
            return f"{_three(mm * UM_PER_MM)} µm"
        if self.units == "in":
            return f"{_three(mm / MM_PER_INCH)} in"
        return f"{_three(mm)} mm"

    def quantity(self, quantity):
        """A quantity of the core's refusals in the unit in use: ``0.037 in``, ``1.5×``, ``1/60 s``, ``4``."""
        value, unit, digits = quantity
        if unit == "mm" and math.isfinite(value):
            return self.length(value) if digits <= 3 else self._length_to(value, digits)
        if unit == "x":
            return f"{value:.{digits}g}×"
        return f"{value:.{digits}g} {unit}".rstrip()

    def _length_to(self, mm, digits):
        if self.units == "in":
            return f"{mm / MM_PER_INCH:.{digits}g} in"
        return f"{mm:.{digits}g} mm"


def _three(value):
    """Three significant digits, without an exponent and without trailing noughts after the point."""
    if abs(value) >= 100:
        return f"{value:,.0f}"
    return f"{value:.3g}"


def f_stop(number):
    """``f/5.6``, ``f/14.3``, ``f/142``."""
    return f"f/{number:.3g}"


def times(magnification):
    """``0.25×``."""
    return f"{magnification:.3g}×"


def seconds(value):
    """``1/60 s``, ``0.5 s``, ``1 min 05 s``, ``2 h 10 min``."""
    if value < 0.3:
        return f"1/{1 / value:.0f} s" if value > 1e-9 else "0 s"
    if value < 59.5:
        return f"{value:.3g} s"
    if value < 3570:
        return _two_parts(int(value + 0.5), "min", "s")
    return _two_parts(int(value / 60 + 0.5), "h", "min")


MARKED = 1e-6, 1e6
"""Between these, s, lie the marks of any camera, with room."""


def shutter_words(value):
    """A shutter time as cameras mark it: ``1/60 s``, ``0.8 s``; past their marks as any time."""
    mark = marked_shutter(value) if MARKED[0] < value < MARKED[1] else None
    return seconds(value) if mark is None else f"{mark} s"


def knob_words(knob, divisions):
    """How far to turn a knob (Knob, divisions from where it stands): ``1 turn and 12 divisions``, ``back 3.5``."""
    whole, rest = divmod(round(abs(divisions), 1), knob.divisions)
    parts = [count(int(whole), "turn")] if whole else []
    if rest or not whole:
        parts.append(f"{rest:g} {'division' if rest == 1 else 'divisions'}")
    return f"{'back ' if divisions < 0 else ''}{' and '.join(parts)}"


def _two_parts(count, large, small):
    whole, rest = divmod(count, 60)
    return f"{whole} {large} {rest:02d} {small}" if rest else f"{whole} {large}"


def percent(share):
    """``31 %``; never 100 % for less than all, never 0 % for more than nothing."""
    rounded = round(share * 100)
    if rounded == 100 and share < 1 - 1e-9:
        rounded = 99
    if rounded == 0 and share > 0:
        return "under 1 %"
    return f"{rounded} %"


def ordinal(number):
    """``2nd``, ``3rd``, ``11th``."""
    ending = "th" if number % 100 in (11, 12, 13) else {1: "st", 2: "nd", 3: "rd"}.get(number % 10, "th")
    return f"{number}{ending}"


def count(number, noun):
    """``1 frame``, ``38 frames``."""
    return f"{number:,} {noun}{'' if number == 1 else 's'}"
