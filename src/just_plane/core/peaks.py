"""A peak between samples: where the parabola through the highest and its two neighbours turns."""


def peak_offset(values, at):
    """How far beside a sample the peak lies.

    Parameters
    ----------
    values : (N,) array   Evenly spaced.
    at : int              The highest of them, or of those around it.

    Returns
    -------
    float                 In samples, on toward the next one; 0 at an end, and where the three do not bend down.

    Notes
    -----
    Of a lowest place: that of the values' negative.

    Examples
    --------
    >>> peak_offset([7.0, 9.0, 9.0], 1)
    0.5
    """
    if not 0 < at < len(values) - 1:
        return 0.0
    before, here, after = values[at - 1 : at + 2]
    bend = before - 2 * here + after
    return float(0.5 * (before - after) / bend) if bend < 0 else 0.0
