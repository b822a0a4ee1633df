"""A kept shot as an answer."""

from just_plane.contract.http import KeptShotAnswer
from just_plane.web.answers import answer


def kept_shot(kept, status=200):
    said = kept._asdict()
    return answer(KeptShotAnswer(shot_id=said.pop("document_id"), shot=said.pop("body"), **said), status)
