"""Which entries are like a shot, and which hold some words."""

import re
from collections import Counter

from just_plane.contract.log import USUAL_TROUBLE, Reminder
from just_plane.planning.words.numbers import f_stop

SAME_SIZE = 1.25
MOST_REMINDERS = 2
COMMON = 1 / 3
"""A word in more of the entries than this says what the trade is, not what the subject is."""
FEW = 6
SMALL = frozenset(("and", "the", "with", "for", "from", "one", "two", "cut", "raw", "new"))
LEAST_LETTERS = 4


def alike(entry_set, shot, magnification, common=frozenset()):
    """What an entry and a shot have in common.

    Parameters
    ----------
    entry_set : LogSet
    shot : Shot
    magnification : float or None   Of the shot.
    common : set of str             Words that tell no subject.

    Returns
    -------
    list of str                     Of subject, rig, size.
    """
    found = []
    if (_subject(entry_set) & _words(f"{shot.name} {shot.subject.what}")) - common:
        found.append("subject")
    names = [placed.gear.name or placed.gear.kind for placed in shot.rig]
    if entry_set.rig[:-1] == names:
        found.append("rig")
    if magnification and entry_set.magnification:
        ratio = magnification / entry_set.magnification
        if 1 / SAME_SIZE <= ratio <= SAME_SIZE:
            found.append("size")
    return found


def reminders(entries, shot, magnification):
    """Lines for next time from entries that are like a shot.

    Parameters
    ----------
    entries : list of LogEntry      The newest first.
    shot : Shot
    magnification : float or None

    Returns
    -------
    list of Reminder                At most two; the most alike first, of these the newest.
    """
    counted = Counter(word for entry in entries for word in _subject(entry.set))
    common_words = {word for word, times in counted.items() if len(entries) >= FEW and times > COMMON * len(entries)}
    found = []
    for entry in entries:
        if not entry.note.next_time.strip():
            continue
        common = alike(entry.set, shot, magnification, common_words)
        # A size alone, or a rig alone, is common to half of all shots.
        if "subject" in common or len(common) > 1:
            found.append((len(common) + ("subject" in common), entry, common))
    found.sort(key=lambda each: -each[0])
    return [
        Reminder(
            entry_id=entry.entry_id,
            why=f"the same {' and '.join(common)}" if len(common) < 3 else "the same subject, rig and size",
            line=entry.note.next_time.strip(),
            from_=f"{entry.set.shot_name}, {entry.made_at[:10]}",
        )
        for _, entry, common in found[:MOST_REMINDERS]
    ]


def holds(entry, words, day=""):
    """Whether an entry holds all words, and is of a day, month or year.

    Parameters
    ----------
    entry : LogEntry
    words : str
    day : str         YYYY, YYYY-MM or YYYY-MM-DD; empty: any.

    Returns
    -------
    bool
    """
    if not entry.made_at.startswith(day):
        return False
    text = text_of(entry).lower()
    return all(word in text for word in words.lower().split())


def text_of(entry):
    """Everything in an entry that may be looked for.

    Parameters
    ----------
    entry : LogEntry

    Returns
    -------
    str
    """
    was, note = entry.set, entry.note
    size = f"{was.magnification:.3g}×  {was.magnification:.3g}x" if was.magnification else ""
    parts = [
        *(was.shot_name, was.subject, *was.rig, f_stop(was.f_number), size, was.way, entry.made_at[:10]),
        *(note.good or "", *note.wrong, note.next_time),
        *((entry.out.answer, *entry.out.findings) if entry.out else ()),
    ]
    return " ".join(parts)


def trouble_words(entries):
    """What went wrong before, most frequent first, with what usually does.

    Parameters
    ----------
    entries : list of LogEntry

    Returns
    -------
    list of str
    """
    counted = Counter(word for entry in entries for word in entry.note.wrong)
    own = [word for word, _ in counted.most_common(12)]
    return [*own, *(word for word in USUAL_TROUBLE if word not in own)]


def _subject(entry_set):
    return _words(f"{entry_set.shot_name} {entry_set.subject}")


def _words(text):
    """Words that say what it is, without their plural."""
    found = re.findall(r"[^\W\d_]+", text.lower())
    return {word.rstrip("s") for word in found if len(word) >= LEAST_LETTERS and word not in SMALL}
