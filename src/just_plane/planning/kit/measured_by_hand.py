"""What was measured at a shot's own pages, as a trial: the size of a rig by a ruler, a lens by two tubes."""

from just_plane.contract.kit import MeasuredRig
from just_plane.contract.trial import MeasuredByHand, RulerFound, TrialAsked, TrialResult
from just_plane.planning.words.days import day_in_words

FRAMES = {"ruler": 1, "two_tubes": 2}
AT = {"infinity": "measured_focal_length_mm", "closest": "measured_closest_focal_length_mm"}


def trial_of(kept, kit):
    """What is kept of a measurement.

    Parameters
    ----------
    kept : MeasuredByHand
    kit : Kit              Names of its pieces go into the sentence.

    Returns
    -------
    (TrialAsked, TrialResult)
    """
    if kept.ruler is not None:
        name = rig_words(kept.ruler.rig, kit)
        asked = TrialAsked(kind="ruler", name=name[:120])
        return asked, _result("ruler", _ruler_sentence(name, kept.ruler), ruler=kept.ruler)
    assert kept.two_tubes is not None
    name = next((piece.gear.name for piece in kit.pieces if piece.gear.kit_id == kept.kit_id), "the lens")
    asked = TrialAsked(kind="two_tubes", name=name, kit_id=kept.kit_id)
    return asked, _result("two_tubes", _tubes_sentence(name, kept.two_tubes), two_tubes=kept.two_tubes)


def already_there(kit, known):
    """Rulers of the kit that no trial tells of: from before trials kept them, or brought with a kit file.

    Parameters
    ----------
    kit : Kit
    known : set of tuple   Rigs that believed trials tell of.

    Returns
    -------
    list of MeasuredByHand
    """
    return [
        MeasuredByHand(
            ruler=RulerFound(
                rig=rig.rig, magnification=rig.magnification, uncertainty=rig.uncertainty, modelled=rig.modelled
            )
        )
        for rig in kit.measured_rigs
        if tuple(rig.rig) not in known
    ]


def with_ruler(kit, found, moment):
    """The kit with the size of a rig.

    Parameters
    ----------
    kit : Kit
    found : RulerFound
    moment : str   ISO 8601.

    Returns
    -------
    Kit
    """
    others = without_ruler(kit, found).measured_rigs
    measured = MeasuredRig(
        rig=found.rig,
        magnification=found.magnification,
        uncertainty=found.uncertainty,
        modelled=found.modelled,
        measured_on=day_in_words(moment),
    )
    return kit.model_copy(update={"measured_rigs": [*others, measured]})


def without_ruler(kit, found):
    """The kit without the size of a rig (Kit, RulerFound): Kit."""
    return kit.model_copy(update={"measured_rigs": [rig for rig in kit.measured_rigs if rig.rig != found.rig]})


def lens_by_two_tubes(gear, found):
    """The lens with what two tubes told of it (contract gear, TwoTubesFound): contract gear."""
    change = {AT[found.at]: found.focal_length_mm}
    if found.pupil_magnification is not None:
        change["measured_pupil_magnification"] = found.pupil_magnification
    return gear.model_copy(update=change)


def lens_without_two_tubes(gear, found):
    """The same taken out again (contract gear, TwoTubesFound): contract gear."""
    change = {AT[found.at]: None}
    if found.pupil_magnification is not None:
        change["measured_pupil_magnification"] = None
    return gear.model_copy(update=change)


def rig_words(rig, kit):
    """A rig in the names of its pieces, body first as it is put together: str."""
    names = {piece.gear.kit_id: piece.gear.name for piece in kit.pieces}
    return " · ".join(
        f"{names.get(each.lstrip('~'), 'a piece no longer in the kit')}{' turned round' if each[:1] == '~' else ''}"
        for each in reversed(rig)
    )


def _ruler_sentence(name, found):
    off = 100 * (found.magnification / found.modelled - 1)
    share = 100 * found.uncertainty / found.magnification
    more = "more" if off > 0 else "less"
    return f"{found.magnification:.4g}× ± {share:.2g} % with {name}, {abs(off):.1f} % {more} than its data sheets say."


def _tubes_sentence(name, found):
    pupil = ""
    if found.pupil_magnification is not None:
        pupil = f", pupil magnification {found.pupil_magnification:.3g} ± {found.pupil_uncertainty or 0:.1g}"
    where = "at infinity" if found.at == "infinity" else "at closest focus"
    return f"{name}: {found.focal_length_mm:.4g} ± {found.uncertainty_mm:.2g} mm {where}{pupil}."


def _result(kind, sentence, **found):
    return TrialResult(kind=kind, refused=False, sentence=sentence, warnings=[], frames=[], used=FRAMES[kind], **found)
