"""A root of a growing function, by false position."""


def growing_root(error, start, end):
    """Where a growing function crosses 0, to 1e-13.

    Parameters
    ----------
    error : callable             float -> float, growing.
    start, end : (float, float)  The two ends of the stretch with the function's value there. When 0 lies outside, the
                                 nearer end is the answer.

    Returns
    -------
    float
    """
    (low, at_low), (high, at_high) = start, end
    if at_low >= 0 or high == low:
        return low
    if at_high <= 0:
        return high
    moved = None
    for _ in range(80):
        guess = low - at_low * (high - low) / (at_high - at_low)
        value = error(guess)
        side = "low" if value < 0 else "high"
        # When the same end moves twice the other is stuck; halving its error (Illinois) frees it.
        halve = 0.5 if side == moved else 1.0
        if side == "low":
            low, at_low, at_high = guess, value, at_high * halve
        else:
            high, at_high, at_low = guess, value, at_low * halve
        moved = side
        if abs(value) < 1e-13 or high - low < 1e-13:
            break
    return guess
