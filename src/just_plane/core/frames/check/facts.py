"""What is known of a stack before its frames are looked at: the numbers of the plan, or none of them."""

import math
from typing import NamedTuple

from just_plane.core.units import DEFAULT_WAVELENGTH

REDUCTIONS = (8, 4, 2, 1)
"""Times fewer pixels each way that a JPEG can be unpacked at."""
LEAST_CIRCLE_PX = 2.5
"""The circle of confusion must keep so many pixels in the picture that is measured."""
UNPLANNED_CIRCLE_PX = 3.0
"""Without a plan detail of so many pixels is looked for: what is seen at 100 %."""
STEP_BLUR_CIRCLES = 0.9
"""Without a plan one step is taken to blur by so many circles: two frames a depth of field."""
WIDEST_UNPLANNED = 2000
"""Without a plan frames wider than this are measured at fewer pixels."""


class StackFacts(NamedTuple):
    """The numbers of a stack; lengths mm, None where not known. ``kind`` is rail, ring or hand."""

    kind: str = "rail"
    magnification: float | None = None
    effective_f_number: float | None = None
    pixel_pitch: float | None = None
    circle: float | None = None
    depth_of_field: float | None = None
    step: float | None = None
    frames: int | None = None
    pupil_distance: float | None = None
    wavelength: float = DEFAULT_WAVELENGTH
    threshold: float = 0.2
    spare_before: float = 0.0
    spare_after: float = 0.0
    """Of the frames that were planned those that may be missing, in steps."""

    def reduction(self, width):
        """Times fewer pixels each way to measure at.

        Parameters
        ----------
        width : int   Of the frames, px.

        Returns
        -------
        int           1, 2, 4 or 8: the largest that leaves 2.5 px to the circle of confusion.
        """
        if self.circle is None or self.pixel_pitch is None:
            return next((r for r in (1, 2, 4, 8) if width / r <= WIDEST_UNPLANNED), 8)
        across = self.circle / self.pixel_pitch
        return next((r for r in REDUCTIONS if across / r >= LEAST_CIRCLE_PX), 1)

    def circle_px(self, reduction):
        """Circle of confusion in pixels of the picture that is measured.

        Parameters
        ----------
        reduction : int   As from :meth:`reduction`.

        Returns
        -------
        float             px, at least 2: finer detail no picture holds.
        """
        if self.circle is None or self.pixel_pitch is None:
            return UNPLANNED_CIRCLE_PX
        return max(self.circle / (self.pixel_pitch * reduction), 2.0)

    def step_blur_px(self, reduction):
        """Blur that one step adds, in pixels of the picture that is measured.

        Parameters
        ----------
        reduction : int   As from :meth:`reduction`.

        Returns
        -------
        float             px; by the plan, else by the usual overlap.
        """
        known = (self.step, self.magnification, self.effective_f_number, self.pixel_pitch)
        if any(value is None for value in known):
            return STEP_BLUR_CIRCLES * self.circle_px(reduction)
        return self.blur(self.step) / (self.pixel_pitch * reduction)

    def blur(self, distance):
        """Diameter of the blur on the sensor of what lies out of focus.

        Parameters
        ----------
        distance : float or array   Along the axis in the subject, mm, >= 0.

        Returns
        -------
        float or array              mm.
        """
        size, f_number = self.magnification or math.nan, self.effective_f_number or math.nan
        return distance * size**2 / f_number

    @property
    def judges_contrast(self):
        """Whether the numbers suffice to say what is sharp in mm.

        Returns
        -------
        bool
        """
        known = (self.step, self.magnification, self.effective_f_number, self.circle)
        return all(value is not None and math.isfinite(value) for value in known)

    @property
    def reach_steps(self):
        """How far from a frame's plane of focus things are still sharp, in steps.

        Returns
        -------
        float   Half the depth of field over the step; without a plan half of two frames a depth: 1.
        """
        if self.depth_of_field is None or self.step is None or not self.step:
            return 1.0
        return self.depth_of_field / 2 / self.step
