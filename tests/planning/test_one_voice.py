"""No sentence of a plan disagrees with a number of the same plan: over thousands of random shots."""

import re

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from just_plane.contract.shot import Shot
from just_plane.planning.plan import plan_shot
from just_plane.planning.words.numbers import f_stop, percent
from just_plane.shelf.starter import starter_shelf

GEAR = {piece.gear.kit_id: piece.gear.model_dump() for piece in starter_shelf().pieces}
LENSES = ("macro-60", "macro-100", "prime-50", "tilt-90")
STOPS = (2.8, 4.0, 5.6, 8.0, 11.0, 16.0, 22.0)

shots = st.fixed_dictionaries(
    {
        "lens": st.sampled_from([each for each in LENSES if each in GEAR]),
        "tube": st.sampled_from([None, "tube-12", "tube-20"]),
        "width": st.floats(8, 400),
        "depth": st.floats(0.05, 120),
        "stop": st.sampled_from(STOPS),
        "school": st.sampled_from(["contrast", "geometric", "budget", "wave"]),
        "picture": st.floats(60, 1500),
        "hold": st.sampled_from([None, 0.1, 3.0, 60.0]),
        "moves": st.sampled_from([None, 0.2, 5.0]),
        "held": st.sampled_from(["support", "hand"]),
        "read": st.booleans(),
        "shutter": st.floats(0.001, 4),
        "rail": st.sampled_from([None, 0.005, 0.5]),
        "thick": st.sampled_from([None, 1.0, 80.0]),
        "leans": st.booleans(),
    }
)


def shot_of(drawn):
    rig = [{"gear": GEAR[drawn["lens"]]}] + ([{"gear": GEAR[drawn["tube"]]}] if drawn["tube"] else [])
    points = []
    if drawn["leans"]:
        places = [("a", 0.2, 0.8, 0.0), ("b", 0.8, 0.8, 0.1), ("c", 0.5, 0.2, 1.0), ("d", 0.5, 0.5, 0.55)]
        points = [
            {"id": each, "name": f"point {each}", "wanted": "sharp", "from_left": left, "from_top": top,
             "depth": {"by": "rail", "readings_mm": [50 + behind * drawn["depth"]]}}
            for each, left, top, behind in places
        ]  # fmt: skip
    on_set = []
    if drawn["thick"] is not None:
        spread = {"kind": "diffuser", "width_mm": 300.0, "height_mm": 300.0, "thickness_mm": drawn["thick"]}
        on_set = [{"gear": spread}]
    return {
        "format": "just-plane/shot",
        "version": 2,
        "name": "random",
        "subject": {"depth_mm": drawn["depth"], "hold_still_s": drawn["hold"], "moves_mm_s": drawn["moves"]},
        "picture": {"width_mm": drawn["picture"]},
        "sharp": {"depth_school": drawn["school"]},
        "body": GEAR["body-36-45"],
        "rig": rig,
        "framing": {"by": "frame_width", "frame_width_mm": drawn["width"]},
        "aperture": {"f_number": drawn["stop"]},
        "stack": {"rail_smallest_step_mm": drawn["rail"]},
        "steadiness": {"held": drawn["held"]},
        "light": {"read": drawn["read"], "metered_shutter_s": drawn["shutter"]},
        "on_set": on_set,
        "plane": {"points": points},
    }


def disagreements(plan, shot):
    """Everything in the sentences of a plan that is not so by its numbers: list of str."""
    wrong, verdict = [], plan.verdict
    headline = verdict.headline.removeprefix("Nothing here holds all of it.")
    way = next((each for each in plan.ways if each.id == verdict.way), None)
    if way is None:
        return wrong
    if not way.recommended:
        wrong.append("the verdict speaks of a way that is not the recommended one")
    all_said = re.search(r" (holds?|covers?) (all|both)", headline) is not None
    if all_said != (way.feasible and way.cover >= 1 - 1e-9):
        wrong.append(f"all of it said {all_said}, cover {way.cover}, feasible {way.feasible}")
    if re.search(r" holds? (all|both)", headline) and way.worst_contrast < shot.sharp.contrast_threshold:
        wrong.append(f"holds all of it at a contrast of {way.worst_contrast}")
    if way.feasible:
        stops = set(re.findall(r"f/[0-9]+(?:[.][0-9]+)?", verdict.headline))
        if f_stop(way.f_number) not in stops:
            wrong.append(f"{way.f_number} is not in {verdict.headline!r}")
        if stops - {f_stop(way.f_number), f_stop(plan.aperture.f_number)}:
            wrong.append(f"another stop in {verdict.headline!r}")
        if way.f_number != plan.aperture.f_number and "is set)" not in verdict.headline:
            wrong.append("another stop than the one in use, not said")
    counted = re.match(r"([\d,]+) frames? ", verdict.headline)
    if counted and int(counted[1].replace(",", "")) != way.frames:
        wrong.append(f"{verdict.headline!r} against {way.frames} frames")
    for share in re.findall(r"((?:under )?\d+) % of (?:the depth|them)", verdict.headline):
        if f"{share} %" != percent(way.cover):
            wrong.append(f"{share} % said, {way.cover} is so")
    points = sum(point.wanted == "sharp" for point in plan.plane.points) if plan.plane else 0
    for each in plan.ways:
        soft = each.frames > 0 and each.worst_contrast < shot.sharp.contrast_threshold
        if soft != bool(each.soft):
            wrong.append(f"{each.id}: soft {each.soft!r} at {each.worst_contrast}")
        if each.points_held is not None and points and abs(each.points_held / points - each.cover) > 1e-9:
            wrong.append(f"{each.id}: {each.points_held} of {points} beside {each.cover}")
        if (
            each.frames
            and each.cover < 1 - 1e-9
            and each.rank == 1
            and any(other.feasible and other.cover >= 1 - 1e-9 and other.id != "strip" for other in plan.ways)
        ):
            wrong.append(f"{each.id} is first, though another that can be done holds all")
        if (
            each.rank == 1
            and each.frames
            and not each.feasible
            and any(other.feasible for other in plan.ways if other.id != "strip")
        ):
            wrong.append(f"{each.id} is first and cannot be done")
        if not shot.light.read and any("no longer than" in clause for clause in each.against):
            wrong.append(f"{each.id}: warns by a reading that was never taken")
    best = plan.aperture.best_words
    if f_stop(plan.aperture.best_f_number) not in best:
        wrong.append(f"{best!r} is not about f/{plan.aperture.best_f_number}")
    said = [verdict.headline, verdict.detail, best, *(clause for each in plan.ways for clause in each.against),
            *(words for each in plan.ways for words in (each.note, each.reason, each.soft))]  # fmt: skip
    ill = re.compile(r"(?<![\d.])-0 |\b1 (pieces|frames|points|clicks|tubes)\b|[.][.]|  | ,|nan|inf\b|\bNone\b|[;:] *$")
    wrong += [f"ill said: {words!r}" for words in said if ill.search(words)]
    return wrong


@settings(max_examples=250, deadline=None)
@given(shots)
def test_no_sentence_disagrees_with_a_number(drawn):
    shot = Shot.model_validate(shot_of(drawn))
    assert disagreements(plan_shot(shot), shot) == []


@pytest.mark.parametrize("name", ["bonbon", "cut", "praline", "ganache", "sugar", "foil"])
@pytest.mark.parametrize("units", ["mm", "in"])
@pytest.mark.parametrize(
    "harder", [{}, {"/steadiness/held": "hand"}, {"/subject/hold_still_s": 1.0}, {"/rig/0/gear/barrel_mm": 60.0}]
)
def test_the_demo_speaks_with_one_voice(catalogue, changed, name, units, harder):
    shot = changed(catalogue[name], harder)
    plan = plan_shot(shot, units)
    assert disagreements(plan, shot) == []
    if units == "in":
        said = " ".join([plan.verdict.headline, plan.verdict.detail, *(way.note for way in plan.ways)])
        assert not re.search(r"\d mm\b(?! macro| tilt| prime| zoom| lens|,)", re.sub(r"tube [0-9]+ mm", "", said))


BADLY_JOINED = re.compile(
    r"\.\.|;;|, ,|  |\.;|: \.|\b1 (frames|points|pieces|gaps|slabs|spare frames)\b|-0(\.0+)? (µm|mm|in)\b"
)


@given(shots)
@settings(max_examples=80, deadline=None)
def test_sentences_are_whole_said_once_and_in_the_unit_in_use(drawn):
    plan = plan_shot(Shot.model_validate(shot_of(drawn)), "in")
    messages = [finding.message for finding in plan.findings]
    assert len(messages) == len(set(messages))
    of_ways = [text for way in plan.ways for text in (way.title, way.note, way.soft, way.reason, *way.against)]
    remedies = [finding.remedy for finding in plan.findings]
    for text in (plan.verdict.headline, plan.verdict.detail, *of_ways, *messages, *remedies):
        assert not BADLY_JOINED.search(text), text
        # Gear is called by its engraved numbers in mm, whatever the unit.
        assert not re.search(r"\d mm", re.sub(r"(tube |macro |\d+ mm (macro|lens))\S*( mm)?", "", text)), text
