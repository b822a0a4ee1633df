"""What the gear of a shot costs, where that was typed."""


def gear_cost(shot):
    """What body, row and things on the set cost together.

    Parameters
    ----------
    shot : Shot

    Returns
    -------
    (float or None, int)   The sum of what is known, None where nothing is; and how many pieces have no cost typed.
    """
    pieces = [*(placed.gear for placed in shot.rig), shot.body, *(thing.gear for thing in shot.on_set)]
    costs = [piece.cost for piece in pieces if piece.cost is not None]
    return round(sum(costs), 2) if costs else None, len(pieces) - len(costs)
