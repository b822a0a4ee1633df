"""One list of gear for several shots: each piece once, as many as the shot that needs most of it."""

from collections import Counter

from just_plane.contract.gear import KIND_WORDS
from just_plane.contract.packing import PackedPiece, PackingList
from just_plane.planning.rig.kinds import KINDS, name_of

ORDER = tuple(KIND_WORDS)


def packing(heading, shots):
    """What to pack.

    Parameters
    ----------
    heading : str
    shots : list of Shot   In the order in which they are taken.

    Returns
    -------
    PackingList            Bodies and lenses first, as on the shelf. A piece taken from the kit is known by its id, any
                           other by its kind and name.
    """
    pieces: dict = {}
    most: Counter = Counter()
    used: dict = {}
    for shot in shots:
        here: Counter = Counter()
        for gear in _gear_of(shot):
            key = gear.kit_id or f"{gear.kind} {_called(gear)}"
            pieces.setdefault(key, gear)
            here[key] += 1
        if shot.stack.rail_name and not _is_there(shot.stack.rail_kit_id, pieces):
            key = shot.stack.rail_kit_id or f"rail {shot.stack.rail_name}"
            pieces.setdefault(key, shot.stack)
            here[key] += 1
        for key, count in here.items():
            most[key] = max(most[key], count)
            used.setdefault(key, []).append(shot.name)
    listed = [_packed(key, gear, most[key], used[key]) for key, gear in pieces.items()]
    listed.sort(key=lambda each: (ORDER.index(each.kind), each.name.lower()))
    known = [each.cost * each.count for each in listed if each.cost is not None]
    return PackingList(
        heading=heading,
        shots=[shot.name for shot in shots],
        pieces=listed,
        cost=sum(known) if known else None,
        without_cost=sum(each.cost is None for each in listed),
    )


def _gear_of(shot):
    return [shot.body, *(placed.gear for placed in shot.rig), *(thing.gear for thing in shot.on_set)]


def _is_there(kit_id, pieces):
    return kit_id is not None and kit_id in pieces and hasattr(pieces[kit_id], "kind")


def _called(gear):
    if gear.kind in KINDS:
        return name_of(gear)
    return gear.name or KIND_WORDS[gear.kind][0]


def _packed(key, gear, count, shots):
    # A rail stands in the stack by its name and numbers alone.
    rail = not hasattr(gear, "kind")
    return PackedPiece(
        kind="rail" if rail else gear.kind,
        name=gear.rail_name if rail else _called(gear),
        kit_id=gear.rail_kit_id if rail else gear.kit_id,
        count=count,
        cost=None if rail else gear.cost,
        shots=shots,
    )
