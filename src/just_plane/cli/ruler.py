"""``just-plane ruler``: a photograph of a ruler to practise measuring on."""

import argparse
import sys
from pathlib import Path


def add_commands(commands):
    """Add it to a parser's sub-commands.

    Parameters
    ----------
    commands : object   As ``ArgumentParser.add_subparsers`` gives it.
    """
    ruler = commands.add_parser(
        "ruler",
        help="make a practice photograph of a ruler",
        description="Make a JPEG of a ruler as a sensor would see it at a known size, to practise measuring on.",
    )
    ruler.add_argument("picture", metavar="RULER.jpg", type=Path, help="file to write")
    ruler.add_argument("--size", metavar="M", type=_positive, default=0.5, help="size on the sensor (0.5)")
    ruler.add_argument("--sensor-width", metavar="MM", type=_positive, default=36.0, help="of the sensor (36)")
    ruler.add_argument("--pixels", metavar="N", type=int, default=3000, help="pixels across, 300 to 9000 (3000)")
    ruler.add_argument("--tick", metavar="MM", type=_positive, default=1.0, help="between ticks (1)")
    ruler.add_argument("--turn", metavar="DEG", type=float, default=4.0, help="turned by, degrees (4)")
    ruler.add_argument("--blur", metavar="PX", type=_positive, default=1.2, help="blur, pixels (1.2)")
    ruler.add_argument("--noise", metavar="SHARE", type=float, default=0.02, help="noise, of full scale (0.02)")
    ruler.set_defaults(run=_ruler)


def _positive(text):
    value = float(text)
    if not 0 < value < 1e6:
        raise argparse.ArgumentTypeError(f"must be more than 0 and less than a million; got {text}")
    return value


def _ruler(options):
    import math

    import numpy as np

    from just_plane.core.frames.ruler_picture import ruler_picture
    from just_plane.pictures.writing import jpeg

    if not 300 <= options.pixels <= 9000 or not 0 <= options.noise <= 0.5:
        print("just-plane: --pixels must be from 300 to 9000, --noise from 0 to 0.5.", file=sys.stderr)
        return 1
    spacing = options.tick * options.size / options.sensor_width * options.pixels
    if not 3 <= spacing <= options.pixels / 8:
        print(
            f"just-plane: ticks would lie {spacing:.3g} pixels apart; 3 to {options.pixels // 8} can be told apart. "
            "Choose another --tick.",
            file=sys.stderr,
        )
        return 1
    picture = ruler_picture(
        options.pixels,
        options.pixels * 2 // 3,
        spacing,
        angle=math.radians(options.turn),
        offset=0.3,
        blur=options.blur,
        noise=options.noise,
        uneven=0.25,
        generator=np.random.default_rng(1),
    )
    try:
        options.picture.write_bytes(jpeg(picture))
    except OSError as error:
        print(f"just-plane: {options.picture}: {error.strerror}", file=sys.stderr)
        return 1
    print(f"{options.picture}: {options.size:g}x, {options.tick:g} mm from tick to tick, {spacing:.4f} pixels")
    return 0
