"""Care for people, living things and the room: the cautions that belong to what is on the set, short and once.

Each defers to the makers' instructions, to local rules, and to a licensed person where one is due.
"""

from just_plane.planning.words.findings import caution, note


def care(shot):
    """What this subject and this set call for: tuple of Finding."""
    return tuple(_said(shot))


def _said(shot):
    nature = shot.subject.nature
    lamps = [thing.gear for thing in shot.on_set if thing.gear.kind == "light"]
    spreads = [thing.gear for thing in shot.on_set if thing.gear.kind == "diffuser"]
    stands = [thing.gear for thing in shot.on_set if thing.gear.kind in ("support", "light")]
    hot = any(lamp.hot for lamp in lamps)
    flash = any(lamp.flash for lamp in lamps)
    if nature in ("plant", "animal"):
        yield caution(
            "care.living",
            "/subject/nature",
            "A living subject: no chilling, gluing or trapping.",
            "Leave when it is disturbed; keep away from nests, and mind the law of the place.",
        )
    if nature in ("animal", "person") and flash:
        yield caution(
            "care.eyes",
            "/on_set",
            "A flash close to eyes can hurt them, of people and of animals.",
            "Keep it back, spread it, or use steady light; follow its maker's distances.",
        )
    if nature in ("plant", "animal") and not lamps:
        yield caution(
            "care.sun",
            "/on_set",
            "In daylight: never look toward the sun through a lens, and do not leave the lens lying in it.",
            "Shade the front when the camera is turned.",
        )
    if nature == "food":
        yield caution(
            "care.food",
            "/subject/nature",
            "Food that was sprayed, glued, lacquered or left out is not to be eaten.",
            "Mark it and throw it away after the set.",
        )
    if hot and any(spread.burns for spread in spreads):
        yield caution(
            "care.fire",
            "/on_set",
            "Hot lamp and something that burns: paper, film and fabric catch fire, and the lamp burns fingers.",
            "Keep its maker's distance, never leave it alone; better a cool lamp.",
        )
    elif hot:
        yield caution(
            "care.hot", "/on_set", "A hot lamp burns fingers and dries what it lights.", "Let it cool before moving it."
        )
    if nature == "liquid" and any(not lamp.flash for lamp in lamps):
        yield caution(
            "care.mains",
            "/on_set",
            "Mains power near liquids.",
            "Cables off the table and behind a residual-current breaker; ask an electrician when in doubt.",
        )
    if len(stands) > 1:
        yield note(
            "care.cables",
            "/on_set",
            "Stands and cables: trip and fall.",
            "Weight the stands, tape the cables, leave a way to walk.",
        )
    if nature in ("thing", "food"):
        yield note(
            "care.dust",
            "/run",
            "Before the run, dust: solvents and compressed air harm coatings, sensors, food and lungs.",
            "A soft brush or a bulb first; follow the makers' instructions.",
        )
