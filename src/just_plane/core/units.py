"""Factors between the core's units and those that people type, in one place.

The inch is exactly 25.4 mm by definition (international yard and pound agreement, 1959).
"""

MM_PER_INCH = 25.4
MM_PER_UM = 1e-3
MM_PER_NM = 1e-6
UM_PER_MM = 1e3
NM_PER_MM = 1e6

DEFAULT_WAVELENGTH = 0.00055
"""Green light, 550 nm, in mm: near the peak of the eye and of a sensor's luminance."""
