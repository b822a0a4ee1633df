"""What of the kit gets this frame: every sensible row tried together, the best of each lens worked out exactly."""

from dataclasses import replace

from just_plane.contract.search import FoundRig, SearchAnswer
from just_plane.contract.shot import FramingByWidth, FramingClosest, MeasuredSize
from just_plane.core.aperture import stops_lost
from just_plane.planning.kit.bounds import worth_trying
from just_plane.planning.kit.combinations import BOUNDS, groups
from just_plane.planning.kit.trial import LIGHT_AT, candidates_of
from just_plane.planning.rig.cautions import rig_cautions
from just_plane.planning.rig.kinds import LENS_KINDS, name_of
from just_plane.planning.rig.rigging import RigAsked, build_rig, rig_key, sensor
from just_plane.planning.words.findings import RefusedError
from just_plane.planning.words.numbers import count, times

FITS = 0.02
MOST_OF_A_LENS = 4
MOST_SHOWN = 24


def search(kit, asked, wording):
    """Rows of the kit's pieces that get the frame asked, best first.

    Parameters
    ----------
    kit : Kit
    asked : SearchAsked
    wording : Wording

    Returns
    -------
    SearchAnswer
    """
    gear = [piece.gear for piece in kit.pieces if piece.carried or not asked.carried_only]
    base = RigAsked(
        asked.body,
        asked.crop_mode,
        [],
        FramingByWidth(by="frame_width", frame_width_mm=asked.frame_width_mm),
        camera_on_its_side=asked.camera_on_its_side,
    )
    wanted = sensor(base).width / asked.frame_width_mm
    measured = {tuple(rig.rig): rig for rig in kit.measured_rigs}
    rows = groups(gear)
    near, left_out = worth_trying(rows, wanted)
    tried = sum(len(group.extensions) for group in rows) - left_out
    candidates = [each for group in near for each in candidates_of(base, group, wanted)]
    candidates.sort(key=lambda each: _rank(each, asked))
    results = [found for each in _few_of_each(candidates) if (found := _exactly(base, each, asked, measured, wording))]
    results.sort(key=lambda found: _order(found, asked))
    results = results[:MOST_SHOWN]
    return SearchAnswer(
        tried=tried,
        bounds=_bounds(tried, left_out),
        headline=_headline(results, tried, gear, kit, asked, wording),
        results=results,
    )


def _bounds(tried, left_out):
    """What was combined and what was not, and what of it was tried: sentences."""
    if not left_out:
        return BOUNDS
    return (
        f"{BOUNDS} This kit makes {left_out + tried:,} rows: {left_out:,} with the most pieces were left out for want "
        "of time. Tick what is on the table today, and all of that is tried."
    )


def _cost(lost, pieces):
    """What a row costs: stops of light, and half a stop for each piece to put on."""
    return lost + 0.5 * pieces


def _rank(candidate, asked):
    """Before the exact answer: whether it fits, whether there is room, then what it costs."""
    return (
        candidate.off > FITS,
        candidate.is_short_of(asked.room_mm),
        {
            "best": _cost(candidate.lost, candidate.pieces),
            "room": -candidate.room,
            "light": candidate.lost,
            "pieces": candidate.pieces,
        }[asked.order],
    )


def _few_of_each(candidates):
    """The best few of each lens and manner, so that one lens with many tubes does not fill the list."""
    seen: dict[tuple, int] = {}
    kept = []
    for candidate in candidates:
        manner = tuple(
            (placed.gear.kit_id, placed.reversed) for placed in candidate.row if placed.gear.kind in LENS_KINDS
        )
        seen[manner] = seen.get(manner, 0) + 1
        if seen[manner] <= MOST_OF_A_LENS:
            kept.append(candidate)
        if len(kept) == MOST_SHOWN:
            break
    return kept


def _exactly(base, candidate, asked, measured, wording):
    """The row worked out as a shot's rig is, with what stands against it; None when it turns out to give nothing."""
    setting = replace(base, rig=candidate.row)
    known = measured.get(tuple(rig_key(setting)))
    if known is not None:
        setting = replace(
            setting,
            measured=MeasuredSize(
                magnification=known.magnification, uncertainty=known.uncertainty, modelled=known.modelled
            ),
        )
    made = _built(setting, wording)
    if made is None:
        setting = replace(setting, framing=FramingClosest(by="closest"))
        made = _built(setting, wording)
    if made is None or made.working_distance <= 0:
        return None
    area, m = sensor(setting), made.imaging.magnification
    width = area.width / m
    marked = min(max(LIGHT_AT, made.lens.widest), made.lens.narrowest)
    effective = float(made.imaging.effective_f_number(marked))
    room_enough = made.working_distance >= asked.room_mm * (1 - 1e-6)
    against = [] if room_enough else [f"{wording.length(made.working_distance)} of room: nearer than asked"]
    fits = abs(width / asked.frame_width_mm - 1) <= FITS
    if not fits:
        against.append(
            f"{wording.length(width)} wide: {'wider' if width > asked.frame_width_mm else 'narrower'} than asked"
        )
    against += [said.message.rstrip(".") for said in rig_cautions(made, wording) if said.severity == "caution"]
    return FoundRig(
        title=_title(candidate.row),
        rig=candidate.row,
        framing=setting.framing,
        measured=setting.measured,
        fits=fits,
        room_enough=room_enough,
        magnification=m,
        frame_width_mm=width,
        frame_height_mm=area.height / m,
        working_distance_mm=made.working_distance,
        subject_to_sensor_mm=made.imaging.subject_to_sensor,
        f_number=marked,
        effective_f_number=effective,
        stops_lost=stops_lost(marked, effective),
        against=against,
        outline=list(made.pieces),
    )


def _built(setting, wording):
    try:
        return build_rig(setting, wording)
    except RefusedError:
        return None


def _order(found, asked):
    pieces = len(found.rig)
    first = {
        "best": _cost(found.stops_lost, pieces) + 0.5 * len(found.against),
        "room": -found.working_distance_mm,
        "light": found.stops_lost,
        "pieces": pieces,
    }[asked.order]
    return (not found.fits, not found.room_enough, first, abs(found.frame_width_mm / asked.frame_width_mm - 1))


def _title(row):
    """The row in words, lens first: ``60 mm macro, f/2.8 · tube 12 mm``."""
    lenses = [placed for placed in row if placed.gear.kind in LENS_KINDS]
    words = []
    for placed in reversed(lenses):
        at = placed.at_focal_length_mm
        words.append(
            name_of(placed.gear)
            + (f" at {at:g} mm" if at is not None else "")
            + (" turned round" if placed.reversed else "")
        )
    others = [placed for placed in reversed(row) if placed not in lenses and not placed.gear.kind.endswith("ring")]
    words += [name_of(placed.gear) for placed in others]
    return " · ".join(words)


def _headline(results, tried, gear, kit, asked, wording):
    width = wording.length(asked.frame_width_mm)
    if not any(piece.kind in LENS_KINDS for piece in gear):
        has_one = any(piece.gear.kind in LENS_KINDS for piece in kit.pieces)
        return "No lens of the kit is on the table today." if has_one else "There is no lens in the kit to search with."
    good = [found for found in results if found.fits and found.room_enough]
    if good:
        return f"{good[0].title} gets {width} with {wording.length(good[0].working_distance_mm)} to work in."
    if any(found.fits for found in results):
        best = max((found for found in results if found.fits), key=lambda found: found.working_distance_mm)
        return (
            f"Nothing gets {width} with that much room; the most is {wording.length(best.working_distance_mm)}, "
            f"with {best.title}."
        )
    if results:
        return f"Nothing gets {width}; the nearest is {times(results[0].magnification)} with {results[0].title}."
    return f"None of {count(tried, 'combination')} comes near {width}."
