"""A folder, judged: what its report says of it as a whole."""

import shutil

import pytest

from just_plane.frames.checking import check_intake
from just_plane.frames.intake import take_in
from stacks.camera import write
from stacks.kept import stack_of

pytestmark = pytest.mark.xdist_group("stacks")


def test_a_card_that_was_copied_twice_is_said_once_and_the_set_may_come_down(tmp_path):
    write(stack_of("dome", 4, jpeg=False), tmp_path)
    taken = sorted(tmp_path.iterdir())
    for one in taken:
        shutil.copy(one, one.with_name(f"Z_{one.name}"))
    report = check_intake(take_in(tmp_path))[0]
    assert [one.code for one in report.findings] == ["duplicate"]
    (said,) = report.findings
    assert len(said.frames) == len(taken)
    assert f"and {len(taken) - 1} more are copies" in said.message
    assert report.verdict.may_come_down
    used = [one.file for one in report.frames if one.used]
    assert used == [one.name for one in taken]
