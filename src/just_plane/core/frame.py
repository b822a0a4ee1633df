"""The frame: how places on it and points before the camera go together."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Frame:
    """Central projection from the entrance pupil. mm.

    Camera frame: x right and y up as seen from behind, z from the lens along the sensor's normal; places are shares of
    the frame from its left and from its top.
    """

    width: float
    height: float
    """Of the sensor in use."""
    magnification: float
    pupil_distance: float
    """Plane of focus to entrance pupil."""
    distance: float
    """Lens to plane of focus."""

    def scale_at(self, z):
        """mm in the subject per mm on the sensor, at distances z (mm, float or array) from the lens."""
        return (self.pupil_distance + z - self.distance) / (self.pupil_distance * self.magnification)

    def across_up(self, from_left, from_top, z):
        """x and y of what is seen at a place.

        Parameters
        ----------
        from_left, from_top : float or array   Shares of the frame, 0 to 1.
        z : float or array                     Distance from the lens, mm.

        Returns
        -------
        (x, y)                                 mm, floats or arrays.
        """
        scale = self.scale_at(z)
        return (from_left - 0.5) * self.width * scale, (0.5 - from_top) * self.height * scale

    def place(self, x, y, z):
        """Where a point (mm, floats or arrays) is seen: shares from left and from top, the inverse of across_up.

        Parameters
        ----------
        x, y : float or array   mm from the axis, right and up.
        z : float or array      Distance from the lens, mm.

        Returns
        -------
        (from_left, from_top)   Shares of the frame, floats or arrays.
        """
        scale = self.scale_at(z)
        return 0.5 + x / (self.width * scale), 0.5 - y / (self.height * scale)
