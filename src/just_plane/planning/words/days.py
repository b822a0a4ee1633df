"""Days in words."""

MONTHS = (
    *("January", "February", "March", "April", "May", "June", "July", "August", "September", "October", "November"),
    "December",
)


def day_in_words(moment):
    """A day as the plan names it.

    Parameters
    ----------
    moment : str   ISO 8601.

    Returns
    -------
    str            Such as ``3 May 2026``.
    """
    year, month, day = (int(part) for part in moment[:10].split("-"))
    return f"{day} {MONTHS[month - 1]} {year}"
