"""The row of pieces: which orders can be, which are doubtful, and which piece is the lens."""

from dataclasses import dataclass

from just_plane.contract.shot import Placed
from just_plane.planning.rig.kinds import BEHIND, COUPLING, FILTER, FRONT, KINDS, LENS_KINDS, REVERSING, noun_of
from just_plane.planning.words.findings import RefusedError, trouble

MOST_BELLOWS = 1


@dataclass(frozen=True, slots=True)
class Row:
    """A row that can be, with what stands where. Indices are those of the shot's row, subject to sensor."""

    pieces: tuple[Placed, ...]
    lens: int
    """The piece whose aperture is set."""
    facing: int | None
    """A lens or objective in front of it, face to face."""

    @property
    def front(self):
        return range(self.lens)

    @property
    def rear(self):
        return range(self.lens + 1, len(self.pieces))

    def gear(self, index):
        return self.pieces[index].gear

    def kind(self, index):
        return self.pieces[index].gear.kind


def arrange(pieces):
    """The row understood.

    Parameters
    ----------
    pieces : list of Placed   Subject to sensor.

    Returns
    -------
    Row

    Raises
    ------
    RefusedError              No such row can be.
    """
    lenses = [index for index, piece in enumerate(pieces) if piece.gear.kind in LENS_KINDS]
    refused = _lenses_refused(pieces, lenses)
    if refused is None:
        row = Row(tuple(pieces), lenses[-1], lenses[0] if len(lenses) == 2 else None)
        refused = next((said for index in range(len(pieces)) if (said := _place_refused(row, index))), None)
        refused = refused or _bellows_refused(row)
        if refused is None:
            return row
    raise RefusedError(trouble(*refused))


def _at(index):
    return f"/rig/{index}/gear"


def _lenses_refused(pieces, lenses):
    if not lenses:
        return (
            "rig.no_lens",
            "/rig",
            "There is no lens in the row.",
            "Add a lens or an objective.",
        )
    if len(lenses) > 2:
        return (
            "rig.too_many_lenses",
            _at(lenses[0]),
            f"There are {len(lenses)} lenses in the row; this program works out two at most, face to face.",
            "Take one out.",
        )
    last = pieces[lenses[-1]]
    if len(lenses) == 1:
        if last.gear.kind == "objective" and last.gear.correction == "infinity":
            return (
                "objective.no_tube_lens",
                _at(lenses[0]),
                "An infinity-corrected objective makes no picture by itself.",
                f"Put a lens behind it, focused at infinity; {last.gear.reference_focal_length_mm:g} mm gives the size "
                "engraved.",
            )
        return None
    first = pieces[lenses[0]]
    if last.gear.kind == "objective":
        return (
            "objective.behind_lens",
            _at(lenses[-1]),
            "An objective behind a lens looks the wrong way.",
            "Put the objective in front.",
        )
    if first.gear.kind == "objective" and first.gear.correction == "finite":
        return (
            "objective.finite_before_lens",
            _at(lenses[-1]),
            "A finite objective makes its own picture: a lens behind it spoils that.",
            "Take the lens out and put tubes or bellows behind the objective.",
        )
    if last.reversed:
        return (
            "lens.reversed_behind_lens",
            _at(lenses[-1]),
            "The lens on the camera must stand the right way round when another faces it.",
            "Turn it round.",
        )
    if first.gear.kind != "objective" and not first.reversed:
        return (
            "lens.same_way_round",
            _at(lenses[0]),
            "Two lenses the same way round give no close picture.",
            "Turn the front one round, so that the two face each other.",
        )
    return None


def _place_refused(row, index):
    """Why the piece cannot stand at its place, as the parts of a finding; None when it can."""
    kind, lens = row.kind(index), row.pieces[row.lens]
    name, place = noun_of(kind), KINDS[kind].place
    if index < row.lens:
        if place == BEHIND:
            turned = " A reversed lens has no mount to hold it there either." if lens.reversed else ""
            return (
                f"{kind}.before_lens",
                _at(index),
                f"{name} takes the light that comes out of the lens; here it stands in front of it.{turned}",
                "Move it between the lens and the body.",
            )
        if place == REVERSING:
            return (
                "reversing_ring.before_lens",
                _at(index),
                "A reversing ring goes between the turned lens and the body.",
                "Move it behind the lens.",
            )
        if row.facing is not None and index < row.facing:
            return (
                f"{kind}.before_facing_lens",
                _at(index),
                f"{name} has no thread to hold it in front of the lens that faces the subject with its mount.",
                "Take it out.",
            )
        if place == FRONT and lens.reversed:
            return (
                "close_up.before_reversed",
                _at(index),
                "A close-up lens screws on the filter thread, and a reversed lens has that toward the body.",
                "Take it out; a longer tube does the same.",
            )
        if place == COUPLING and row.facing is None:
            return (
                "coupling_ring.nothing_to_hold",
                _at(index),
                "The coupling ring holds a second lens, and there is none.",
                "Put a reversed lens in front of it, or take the ring out.",
            )
        return None
    if index > row.lens:
        if place == FRONT:
            return (
                "close_up.behind_lens",
                _at(index),
                "A close-up lens goes on the filter thread, in front of the lens; behind it there is no thread.",
                "Move it in front of the lens.",
            )
        if place == COUPLING:
            return (
                "coupling_ring.behind_lens",
                _at(index),
                "A coupling ring goes between the two lenses.",
                "Move it in front of the lens on the camera.",
            )
        if place in (REVERSING, FILTER) and not lens.reversed and lens.gear.kind != "objective":
            return (
                f"{kind}.behind_lens",
                _at(index),
                f"{name} holds by the filter thread, and this lens has that toward the subject.",
                "Turn the lens round, or take the ring out.",
            )
    return None


def _bellows_refused(row):
    places = [index for index in row.rear if row.kind(index) == "bellows"]
    if len(places) <= MOST_BELLOWS:
        return None
    return ("bellows.two", _at(places[1]), "Two bellows in one row are one too many to set.", "Take one out.")
