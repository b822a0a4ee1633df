"""Stacks made once a process, and the core's judgement of them from pictures in memory."""

from functools import lru_cache

import cv2
import numpy as np

from just_plane.core.frames.check.checked import check_stack
from just_plane.core.frames.check.facts import StackFacts
from just_plane.core.frames.check.series import Follower
from stacks.camera import Faults, photograph
from stacks.world import make_world

SIZE = (192, 288)
STEP_MM = 1.296
PUPIL_STEPS = 230.0
FACTS = StackFacts(
    kind="rail",
    magnification=0.5,
    effective_f_number=12.0,
    pixel_pitch=0.01,
    circle=0.03,
    depth_of_field=2 * STEP_MM,
    step=STEP_MM,
    frames=12,
    pupil_distance=PUPIL_STEPS * STEP_MM,
)
"""Three pixels to the circle; a step blurs by 1.296 x 0.25 / 12 = 0.027 mm, the 2.7 px of the made-up camera."""


@lru_cache(maxsize=64)
def stack_of(kind="dome", seed=3, faults=None, *, mode="rail", jpeg=True, count=12):
    """A stack of the made-up camera."""
    world = make_world(kind, seed, SIZE, count)
    return photograph(
        world, seed, count=count, kind=mode, jpeg=jpeg, faults=faults or Faults(), pupil_steps=PUPIL_STEPS
    )


def grey(frame):
    """What the core measures: float32, 0 to 1."""
    top = 255 if frame.dtype == np.uint8 else 65535
    return cv2.cvtColor(frame, cv2.COLOR_BGR2GRAY).astype(np.float32) / np.float32(top)


@lru_cache(maxsize=64)
def judged(kind="dome", seed=3, faults=None, *, mode="rail", jpeg=True, count=12):
    """The core's judgement of such a stack."""
    stack = stack_of(kind, seed, faults, mode=mode, jpeg=jpeg, count=count)
    facts = FACTS._replace(kind=mode)
    pictures = [grey(frame) for frame in stack.frames]
    follower = Follower(pictures[0].shape, facts, facts.reduction(pictures[0].shape[1]))
    seen, same = {}, {}
    for frame, picture in enumerate(pictures):
        name = picture.tobytes()
        if name in seen:
            same[frame] = seen[name]
        seen.setdefault(name, frame)
        follower.add(frame, picture)
    return check_stack(follower, lambda frame: pictures[frame], same)
