"""Paraxial ray matrices: (a, b, c, d) takes a ray (height, angle) to (a h + b u, c h + d u).

Entries are floats, or arrays that broadcast: one product then answers for many settings or many rigs. See
docs/derivations/rig.md.
"""


def gap(length):
    """Free travel over ``length`` mm."""
    return (1.0, length, 0.0, 1.0)


def thin_lens(focal_length):
    """A thin lens of ``focal_length`` mm, negative when it spreads light."""
    return (1.0, 0.0, -1 / focal_length, 1.0)


def through(later, earlier):
    """The product: first ``earlier``, then ``later``.

    Parameters
    ----------
    later, earlier : (a, b, c, d)

    Returns
    -------
    (a, b, c, d)
    """
    a, b, c, d = later
    p, q, r, s = earlier
    return (a * p + b * r, a * q + b * s, c * p + d * r, c * q + d * s)


def turned_round(matrix):
    """The same pieces met by light from the other side: a and d change places (the determinant is 1).

    Parameters
    ----------
    matrix : (a, b, c, d)

    Returns
    -------
    (a, b, c, d)
    """
    a, b, c, d = matrix
    return (d, b, c, a)
