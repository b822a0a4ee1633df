"""Reading the magnifier: which of five is the sharpest."""

import numpy as np

ROUNDS, CHOICES = 10, 5
WIDEST, NARROWEST = 14, 3
"""Clicks of focus between two of the five, in the first round and in the last."""
BY_CHANCE = 1 / CHOICES


def rounds_of(seed):
    """Ten rounds of five settings of the focus, closer together from round to round.

    Parameters
    ----------
    seed : int

    Returns
    -------
    list of list of int   Clicks.
    """
    made = np.random.default_rng((91, seed))
    rounds = []
    for step in np.linspace(WIDEST, NARROWEST, ROUNDS):
        sharpest = made.integers(0, CHOICES)
        middle = int(made.integers(-1, 2))
        clicks = middle + np.round(step * (np.arange(CHOICES) - sharpest)).astype(int)
        rounds.append([int(clicks[place]) for place in made.permutation(CHOICES)])
    return rounds


def sharpest_of(clicks):
    """Which of some settings is the sharpest.

    Parameters
    ----------
    clicks : list of int

    Returns
    -------
    int   Its place among them.
    """
    return int(np.argmin([abs(click) for click in clicks]))


def reading_score(seed, picks):
    """Share of right answers, between chance and all.

    Parameters
    ----------
    seed : int
    picks : list of int   One a round.

    Returns
    -------
    float                 0 to 100.
    """
    right = sum(pick == sharpest_of(clicks) for pick, clicks in zip(picks, rounds_of(seed), strict=False))
    return 100 * max((right / ROUNDS - BY_CHANCE) / (1 - BY_CHANCE), 0.0)
