"""What to mind about a rig: what is lost, what hangs on what, what does not fit, what it was not made for."""

import math

from just_plane.planning.rig.kinds import KINDS, name_of
from just_plane.planning.rig.objectives import OFF_ITS_SIZE, objective_in
from just_plane.planning.rig.rigging import sensor
from just_plane.planning.words.findings import caution, note
from just_plane.planning.words.numbers import times

BEYOND = 2.0
"""How many times past the size it was made for a lens may go before it is said."""
HEAVY_G = 700.0
"""Weight from which a lens on tubes of unknown strength wants support."""
FAR_FROM_THIN = 0.25
"""Share by which barrel and room may differ from a thin lens before one of them is doubted."""
RIM = 1.5
"""Metal around a front thread that light does not pass, mm."""


def rig_cautions(made, wording):
    """Everything that there is to mind about a rig that works.

    Parameters
    ----------
    made : Rigged
    wording : Wording

    Returns
    -------
    tuple of Finding   Cautions and notes.
    """
    return (*_said(made, wording), *_say_infinity(made, wording))


def rig_faults(made, wording):
    """What stands against a rig that works: of :func:`rig_cautions` those that are cautions.

    Parameters
    ----------
    made : Rigged
    wording : Wording

    Returns
    -------
    list of Finding
    """
    return [said for said in _said(made, wording) if said.severity == "caution"]


def _said(made, wording):
    """All but how far it focuses, which is no fault and takes a look over the whole ring."""
    yield from _say_held(made)
    yield from _say_threads(made)
    yield from _say_controls(made)
    yield from _say_weight(made)
    yield from _say_made_for(made, wording)
    yield from _say_length(made, wording)
    yield from _say_corners(made, wording)
    yield from _say_measured(made)


def _at(index):
    return f"/rig/{index}/gear"


def _say_held(made):
    """A turned lens needs a ring that holds it; a converter that reaches in needs room."""
    row = made.row
    lens = row.pieces[row.lens]
    kinds = [row.kind(index) for index in range(len(row.pieces))]
    if lens.reversed and "reversing_ring" not in kinds:
        yield caution(
            "reversed.no_ring",
            _at(row.lens),
            "Nothing in the row holds the turned lens.",
            "Add a reversing ring with its filter thread; its thickness counts as extension.",
        )
    if row.facing is not None and row.kind(row.facing) != "objective" and "coupling_ring" not in kinds:
        yield caution(
            "facing.no_ring",
            _at(row.facing),
            "Nothing in the row holds the two lenses together.",
            "Add a coupling ring with both filter threads.",
        )
    for index in row.rear:
        if row.kind(index) == "converter" and row.gear(index).reaches_in and index == row.lens + 1:
            yield caution(
                "converter.reaches_in",
                _at(index),
                "The front glass of this converter reaches into what stands before it.",
                "Check that the lens leaves room behind its mount, or put a tube between them.",
            )
    powers = [row.gear(index).dioptres for index in row.front if row.kind(index) == "close_up"]
    if powers != sorted(powers):
        yield note(
            "close_up.stronger_outside",
            "/rig",
            "The stronger close-up lens stands farther out.",
            "Put the stronger one next to the lens: the picture stays cleaner.",
        )


def _say_threads(made):
    """Follow the threads outward from the lens, and backward from a turned one."""
    row = made.row
    thread = getattr(row.gear(row.lens), "thread_mm", None)
    turned = row.pieces[row.lens].reversed
    order = row.rear if turned else reversed(row.front)
    for index in order:
        gear = row.gear(index)
        kind = KINDS[gear.kind]
        needed = getattr(gear, kind.screws_on) if kind.screws_on else None
        if needed is not None and thread is not None and abs(needed - thread) > 0.01:
            yield caution(
                "thread.mismatch",
                _at(index),
                f"{_capital(name_of(gear))} has a thread of {needed:g} mm; what it screws on has {thread:g} mm.",
                f"Put a step ring {thread:g} to {needed:g} between them.",
            )
        elif needed is not None and thread is None:
            yield caution(
                "thread.unknown",
                _at(index),
                f"Whether {name_of(gear)} fits is not known: what it screws on has no thread in the kit.",
                "Read its filter thread off the lens, and give it.",
            )
        offered = getattr(gear, kind.carries_on) if kind.carries_on else None
        thread = thread if offered is None else offered


def _say_controls(made):
    """Aperture and autofocus that do not get through."""
    row = made.row
    lens = row.pieces[row.lens]
    if lens.gear.kind == "objective":
        return
    cut = next((i for i in row.rear if not getattr(row.gear(i), "contacts", True)), None)
    if lens.reversed:
        cut, reason = row.lens, "turned round, it has no contacts toward the body"
    elif cut is not None:
        reason = f"nothing gets through {name_of(row.gear(cut))}"
    else:
        return
    if lens.gear.aperture_ring:
        yield note(
            "aperture.on_lens",
            _at(cut),
            f"The aperture is set on the lens: {reason}.",
            "Open it to focus, close it to shoot; the finder darkens.",
        )
    else:
        yield caution(
            "aperture.no_contacts",
            _at(cut),
            f"The aperture cannot be set: {reason}, and the lens has no aperture ring.",
            "Use a piece with contacts or a lens with an aperture ring; else it stays as it was left.",
        )
    yield note("focus.by_hand", _at(cut), f"No autofocus: {reason}.", "Focus by hand, or move camera or subject.")


def _say_infinity(made, wording):
    far = made.focus_range()[1]
    if math.isfinite(far) and not made.rig.is_fixed:
        yield note(
            "infinity.lost",
            "/rig",
            f"Infinity is gone: this rig focuses no farther than {wording.length(float(far))} from the sensor.",
        )


def _say_weight(made):
    """What hangs in front of each piece, against what it carries."""
    row = made.row
    lens = row.gear(row.lens)
    if getattr(lens, "foot", False):
        return
    hanging = sum(getattr(row.gear(i), "weight_g", None) or 0.0 for i in range(row.lens + 1))
    for index in row.rear:
        gear = row.gear(index)
        if gear.kind not in ("tube", "bellows"):
            continue
        if gear.carries_g is not None and hanging > gear.carries_g:
            yield caution(
                "weight.on_tube",
                _at(index),
                f"{hanging:,.0f} g hang on {name_of(gear)}, which carries {gear.carries_g:,.0f} g.",
                "Support the lens, not the camera, as its maker says.",
            )
        elif gear.carries_g is None and hanging >= HEAVY_G:
            yield caution(
                "weight.on_tube",
                _at(index),
                f"{hanging:,.0f} g hang on {name_of(gear)}.",
                "Support the lens; light tubes bend and mounts tear out.",
            )


def _say_made_for(made, wording):
    row = made.row
    gear, works_at = row.gear(row.lens), float(made.imaging.lens_magnification)
    if objective_in(row.pieces) is not None:
        yield from _say_objective(made, wording)
        return
    if row.pieces[row.lens].reversed:
        return
    made_to = gear.made_to_magnification or made.rig.lens.closest_magnification
    if works_at > BEYOND * made_to and works_at > 0.25:
        turn = " Past life size it may do better turned round." if works_at > 1 else ""
        yield caution(
            "lens.beyond_made_for",
            _at(row.lens),
            f"This lens was made for up to {times(made_to)}; here it works at {times(works_at)}.",
            f"Expect soft corners and colour fringes; stop down a little and try a frame.{turn}",
        )


def _say_objective(made, wording):
    """A finite objective far from the size that it is corrected for; one of the other sort on too short a lens."""
    row = made.row
    at = row.lens if row.facing is None else row.facing
    gear = row.gear(at)
    if gear.kind != "objective":
        return
    if gear.correction == "finite":
        works_at = float(made.imaging.lens_magnification)
        if not 1 / OFF_ITS_SIZE <= works_at / gear.magnification <= OFF_ITS_SIZE:
            yield caution(
                "objective.off_its_size",
                _at(at),
                f"This objective is corrected for {times(gear.magnification)}, on "
                f"{wording.length(gear.tube_length_mm)} of tube; here it works at {times(works_at)}.",
                "Its picture gets softer than is reckoned here: change the extension, or try a frame first.",
            )
    elif made.rig.lens.focal_length_now * OFF_ITS_SIZE < gear.reference_focal_length_mm:
        yield caution(
            "objective.short_tube_lens",
            _at(at),
            f"This objective is engraved for a lens of {wording.length(gear.reference_focal_length_mm)}; on "
            f"{wording.length(float(made.rig.lens.focal_length_now))} the circle it lights is as much smaller.",
            "Expect dark corners: use a longer lens, or a crop mode.",
        )


def _say_length(made, wording):
    """Of a lens for large sizes only: barrel and room on paper against what its focal length needs."""
    row, lens = made.row, made.rig.lens
    paper = getattr(lens, "on_paper", None)
    if paper is None or made.lens.room is None or made.lens.closest_focus is not None:
        return
    largest = lens.closest_magnification
    thin = lens.focal_length_now * (2 + largest + 1 / largest)
    there = float(paper.subject_to_sensor(largest))
    if abs(there / thin - 1) > FAR_FROM_THIN:
        yield caution(
            "lens.length_disagrees",
            _at(row.lens),
            f"Barrel and room put the subject {wording.length(there)} from the sensor at {times(largest)}; a lens that "
            f"keeps its {lens.focal_length_now:g} mm needs {wording.length(thin)}.",
            "Give by how much the barrel grows, or the closest focus; until then trust the room, not the distance "
            "from the sensor.",
        )


def _say_corners(made, wording):
    """Image circle against the sensor's corner, and the ray to the corner against the threads in front."""
    row, area, imaging = made.row, sensor(made.asked), made.imaging
    gear = row.gear(row.lens)
    diagonal = math.hypot(area.width, area.height)
    circle = getattr(gear, "image_circle_mm", None)
    if circle is not None and not row.pieces[row.lens].reversed:
        factor = math.prod(row.gear(i).factor for i in row.rear if row.kind(i) == "converter")
        covered = circle * (1 + float(imaging.lens_magnification)) * factor
        if covered < diagonal * 0.995:
            yield caution(
                "corners.image_circle",
                _at(row.lens),
                f"The lens lights a circle of {wording.length(covered)} here; the sensor's diagonal is "
                f"{wording.length(diagonal)}.",
                "Its corners stay dark: use a crop mode, or crop the picture.",
            )
    if row.facing is not None or row.pieces[row.lens].reversed:
        return
    half = diagonal / 2 / imaging.magnification
    at = made.front_to_sensor
    for index in row.front:
        piece = row.gear(index)
        opening = KINDS[piece.kind].opening(piece)
        to_piece = imaging.subject_to_sensor - at
        height = half * (imaging.pupil_distance - to_piece) / imaging.pupil_distance
        if opening is not None and height > opening / 2 - RIM:
            yield caution(
                "corners.thread",
                _at(index),
                f"Light for the corners passes {wording.length(height)} from the axis; "
                f"{name_of(piece)} is open to {wording.length(max(opening / 2 - RIM, 0))}.",
                "Its corners stay dark: use a larger thread, or a narrower frame.",
            )
        at -= KINDS[piece.kind].length(piece)


def _say_measured(made):
    measured = made.asked.measured
    if measured is None:
        return
    ratio = measured.magnification / measured.modelled
    if not 0.8 < ratio < 1.25:
        yield caution(
            "measured.far_from_model",
            "/measured",
            f"The measured size is {ratio:.2f} times what the model gives: more than a model is usually wrong by.",
            "Was it this rig, at this setting, and the whole frame? Measure again, or take the measurement away.",
        )


def _capital(text):
    return text[:1].upper() + text[1:]
