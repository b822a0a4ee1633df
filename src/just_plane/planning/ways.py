"""The ways section: one frame at three stops, a stack by rail and one by ring, with what stands against each."""

from dataclasses import dataclass, replace

from just_plane.contract.plan import BackOffAnswer, StackAnswer, WayAnswer
from just_plane.contract.shot import Shot
from just_plane.core.errors import OpticsError
from just_plane.core.stack import SLAB_FROM, rail_stack, ring_stack, slabs
from just_plane.core.units import MM_PER_NM
from just_plane.core.ways import FramesView, Pace, Single, View, Way, one_frames, recommend, stacked
from just_plane.planning.apertures import Stops
from just_plane.planning.backing_off import back_off, words
from just_plane.planning.rigging import Rigged
from just_plane.planning.ring import throw
from just_plane.planning.wording import Wording, count, f_stop, percent, seconds


@dataclass(frozen=True, slots=True)
class Compared:
    """One way with its words, before one of them is recommended."""

    id: str
    way: Way
    title: str
    note: str
    against: tuple[str, ...] = ()
    stack: StackAnswer | None = None
    back_off: BackOffAnswer | None = None


@dataclass(frozen=True, slots=True)
class Bench:
    """What every way starts from."""

    shot: Shot
    rigged: Rigged
    stops: Stops
    view: View
    circle: float
    focus: float
    wording: Wording

    @property
    def pace(self):
        options = self.shot.stack
        return Pace(options.settle_s, options.recovery_s, options.noise_reduction)

    def exposure(self, index):
        """Shutter time at a stop, s."""
        return float(self.stops.shutters[index])


def bench(shot, rigged, stops, circle, focus, wording):
    """The common ground of all ways."""
    imaging = rigged.imaging
    view = View(
        imaging.magnification,
        imaging.pupil_distance,
        circle,
        shot.subject.depth_mm,
        shot.sharp.wavelength_nm * MM_PER_NM,
    )
    return Bench(shot, rigged, stops, view, circle, focus, wording)


def compare(bench):
    """Every way to get the shot, in fixed order, one of them recommended: list of WayAnswer."""
    stops = bench.stops
    compared = _singles(bench, {"one": stops.chosen, "one_best": stops.best, "one_narrowest": stops.clicks - 1})
    if compared[0].way.cover < 1:
        compared.append(_back_off(bench))
    compared.append(_stack(bench, "rail"))
    compared.append(_stack(bench, "ring"))
    hold_still = bench.shot.subject.hold_still_s
    # Standing back equals stopping down, at the price of pixels: shown beside it, never put before it.
    possible = [index for index, item in enumerate(compared) if item.way.frames and item.id != "back_off"]
    choice = recommend([compared[i].way for i in possible], bench.shot.sharp.contrast_threshold, hold_still)
    return [
        _answer(_timed(item, hold_still), recommended=choice is not None and index == possible[choice])
        for index, item in enumerate(compared)
    ]


def _singles(bench, indices):
    """One frame at each of some stops, {way id: index of the stop}; a stop that stands for two is said once."""
    shot, stops = bench.shot, bench.stops
    once = {index: way_id for way_id, index in reversed(indices.items())}
    wanted = [(way_id, index) for way_id, index in indices.items() if once[index] == way_id]
    ways = one_frames(
        bench.view,
        [
            Single(
                float(stops.f_numbers[index]),
                float(stops.effective_f_numbers[index]),
                float(stops.blurs[index]),
                bench.exposure(index),
                bench.focus if way_id == "one" else None,
            )
            for way_id, index in wanted
        ],
        bench.pace,
    )
    name = {"one": "One frame", "one_best": "One frame, best stop", "one_narrowest": "One frame, stopped right down"}
    return [
        Compared(
            way_id,
            way,
            f"{name[way_id]}, {f_stop(way.f_number)}",
            _single_note(bench, way, shot),
            (f"diffraction alone leaves {percent(max(float(stops.perfect[index]), 0.0))} contrast",)
            if stops.blurs[index] == 0
            else (),
        )
        for (way_id, index), way in zip(wanted, ways, strict=True)
    ]


def _single_note(bench, way, shot):
    near, far = way.bands[0]
    depth, length = shot.subject.depth_mm, bench.wording.length
    if far <= near:
        return "nothing is sharp by this measure"
    before, behind = max(near, 0.0), max(depth - far, 0.0)
    if before >= depth or behind >= depth:
        return "misses all of it: the focus lies outside"
    missed = [f"{length(before)} in front"] * (before > 0) + [f"{length(behind)} behind"] * (behind > 0)
    if missed:
        return "misses " + " and ".join(missed)
    return f"{length(min(-near, far - depth))} to spare at the tighter end"


def _back_off(bench):
    stop = bench.stops.chosen
    backed = back_off(bench, stop)
    if isinstance(backed, str):
        return replace(_impossible(bench, "one_frame", "Back off and crop", backed), id="back_off")
    stop_words = f_stop(backed.way.f_number)
    return Compared(
        "back_off",
        backed.way,
        f"Back off {backed.answer.factor:.2g}× and crop, {stop_words}",
        words(backed.answer, bench.wording),
        backed.against,
        back_off=backed.answer,
    )


def _stack(bench, kind):
    shot, stops = bench.shot, bench.stops
    index = stops.chosen
    f_number, effective = float(stops.f_numbers[index]), float(stops.effective_f_numbers[index])
    blur = float(stops.blurs[index])
    title = f"Stack by {'rail' if kind == 'rail' else 'focus ring'}, {f_stop(f_number)}"
    if blur == 0:
        return _impossible(bench, kind, title, "no depth in any frame at this stop: open up, or use a coarser measure")
    try:
        if kind == "rail":
            options = shot.stack
            stack = rail_stack(
                shot.subject.depth_mm,
                float(stops.depths[index]),
                options.overlap,
                spare_before=options.spare_before,
                spare_after=options.spare_after,
                smallest_step=options.rail_smallest_step_mm,
            )
            view, crop = FramesView(bench.view.magnification, bench.view.pupil_distance, effective, blur), 0.0
        else:
            stack, view, crop = _ring(bench, f_number)
    except OpticsError as error:
        return _impossible(bench, kind, title, str(error))
    way = stacked(bench.view, kind, f_number, view, stack, bench.exposure(index), bench.pace)
    answer = _stack_answer(stack, view, crop, way)
    return Compared(kind, way, title, _stack_note(bench, kind, answer), _against_stack(bench, kind, answer), answer)


class OutOfThrowError(OpticsError):
    """The focus ring does not get to both ends of the subject."""


def _ring(bench, f_number):
    """Stack, view of its frames and crop for the ring; raises OutOfThrowError where the ring does not reach."""
    shot = bench.shot
    table = throw(shot, bench.rigged, bench.circle, f_number, bench.focus)
    if table is None or table.nearest > 0 or table.farthest < shot.subject.depth_mm:
        raise OutOfThrowError("ring.out_of_throw", quantity="depth", message=_why_not(bench, table))
    options = shot.stack
    stack = ring_stack(
        shot.subject.depth_mm,
        table.depth_at(),
        options.overlap,
        spare_before=options.spare_before,
        spare_after=options.spare_after,
    )
    if stack.positions[0] < table.nearest or stack.positions[-1] > table.farthest:
        raise OutOfThrowError(
            "ring.no_spare", quantity="depth", message="The ring ends before the spare frames: ask for none."
        )
    return stack, table.view(stack.positions), table.crop(stack.positions)


def _why_not(bench, table):
    length = bench.wording.length
    if bench.rigged.over_throw is None:
        return "This rig has no focus ring to step with: use the rail."
    if table is None:
        return "At this size the ring moves the plane of focus hardly at all: use the rail."
    if table.nearest > 0:
        return f"The ring ends {length(table.nearest)} behind the nearest point: use the rail, or a wider frame."
    return f"The ring ends {length(bench.shot.subject.depth_mm - table.farthest)} before the farthest point."


def _impossible(bench, kind, title, reason):
    index = bench.stops.chosen
    way = Way(
        kind,
        float(bench.stops.f_numbers[index]),
        float(bench.stops.effective_f_numbers[index]),
        *((), (), 0.0, 0.0, 0.0, 0.0),
    )
    return Compared(kind, way, title, "not with this set-up", (reason[:1].lower() + reason[1:].rstrip("."),))


def _stack_answer(stack, view, crop, way):
    sizes = [float(view.magnification)] if isinstance(view.magnification, float) else view.magnification.tolist()
    depth = way.bands[0].far - way.bands[0].near
    return StackAnswer(
        step_mm=stack.positions[1] - stack.positions[0] if stack.frames > 1 else stack.smallest_gap,
        largest_step_mm=stack.largest_gap,
        steps=stack.steps,
        frames=stack.frames,
        covering_frames=stack.covering,
        first_mm=stack.positions[0],
        last_mm=stack.positions[-1],
        frames_per_depth=min(depth / stack.smallest_gap, 1e6) if stack.smallest_gap > 0 else 1.0,
        crop=crop,
        magnifications=sizes,
        slabs=[list(slab) for slab in slabs(stack.frames)] if stack.frames > SLAB_FROM else [],
    )


def _stack_note(bench, kind, answer):
    length = bench.wording.length
    spare = answer.frames - answer.covering_frames
    extra = f", {count(spare, 'spare frame')}" if spare else ""
    if kind == "rail":
        return f"step {length(answer.step_mm)}{extra}"
    return f"step {length(answer.step_mm)} to {length(answer.largest_step_mm)}, crops {percent(answer.crop)}{extra}"


def _against_stack(bench, kind, answer):
    options, length, against = bench.shot.stack, bench.wording.length, []
    travel = answer.last_mm - answer.first_mm
    if kind == "rail" and options.rail_travel_mm is not None and travel > options.rail_travel_mm:
        against.append(f"needs {length(travel)} of rail; there are {length(options.rail_travel_mm)}")
    if kind == "rail" and bench.rigged.working_distance - bench.focus - answer.last_mm + bench.focus < 0:
        against.append("the lens would touch the subject before the last frame")
    if answer.frames_per_depth > 5.5:
        against.append("past five frames a depth the merge only gets softer")
    if answer.slabs:
        against.append(f"merge in {len(answer.slabs)} slabs")
    return tuple(against)


def _timed(item, hold_still):
    if hold_still is None or item.way.time <= hold_still:
        return item
    late = f"takes {seconds(item.way.time)}; the subject holds {seconds(hold_still)}"
    return replace(item, against=(late, *item.against))


def _answer(item, *, recommended):
    way = item.way
    limit = 1e9  # an endless far limit, as far as any drawing goes
    return WayAnswer(
        id=item.id,
        kind=way.kind,
        title=item.title,
        note=item.note,
        f_number=way.f_number,
        effective_f_number=way.effective_f_number,
        cover=way.cover,
        worst_contrast=way.worst_contrast,
        worst_behind_nearest_mm=way.worst_at,
        frames=way.frames,
        time_s=way.time,
        focuses_mm=list(way.focuses),
        bands_mm=[[band.near, min(band.far, limit)] for band in way.bands],
        against=list(item.against),
        stack=item.stack,
        back_off=item.back_off,
        recommended=recommended,
    )
