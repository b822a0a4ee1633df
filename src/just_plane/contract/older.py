"""Shots of older versions, made into the newest. Whatever reads a shot goes through here: files, rows, requests."""


def newer_shot(document):
    """A shot document of any version known, as the newest; anything else is returned as it came, to be refused later.

    Version 1 had one lens and a list of tubes, counted from the body; version 2 has a row of pieces, counted from the
    subject.
    """
    if not isinstance(document, dict):
        return document
    document = _meter_read(document)
    if document.get("version") != 1 or "rig" in document:
        return document
    shot = dict(document)
    lens, tubes, body = shot.pop("lens", None), shot.pop("tubes_mm", []), shot.get("body")
    if not isinstance(lens, dict) or not isinstance(tubes, list) or not isinstance(body, dict):
        return document
    shot["version"] = 2
    shot["body"] = {"kind": "body", **body}
    shot["rig"] = [
        {"gear": {"kind": "lens", **lens}},
        *({"gear": {"kind": "tube", "length_mm": length}} for length in reversed(tubes)),
    ]
    return shot


ASSUMED_LIGHT = {"metered_f_number": 8.0, "metered_shutter_s": 0.25, "metered_iso": 100.0}
"""What stood in a new shot before a reading could be told from an assumption."""


def _meter_read(document):
    """A reading other than the one that every new shot began with was taken on a meter."""
    light = document.get("light")
    if not isinstance(light, dict) or "read" in light:
        return document
    taken = any(light.get(name, assumed) != assumed for name, assumed in ASSUMED_LIGHT.items())
    return {**document, "light": {**light, "read": taken}}
