"""The rules of the job: optics and arithmetic, with no interface code.

Units: millimetres (wavelengths too: 550 nm is 0.00055), radians, seconds, cycles per millimetre.
Signs: magnification and distances are unsigned. A coordinate along the axis grows away from the camera,
into the subject, and is named for what it is measured from (``from the nearest point``, ``from the sensor``).

Nothing here opens a file, prints, reads the clock or knows of the web; ``tests/test_architecture.py`` holds
the short list of what may be imported. A refusal is an :class:`~just_plane.core.errors.OpticsError`.
"""
