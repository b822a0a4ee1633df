"""Pictures kept as rows, written as TIFF and cut into tiles."""

import zipfile
from contextlib import suppress
from io import BytesIO

import numpy as np
import pytest
import tifffile
from PIL import Image

from just_plane.pictures.frames import FrameFacts
from just_plane.pictures.frames_out import WriteError, proof_tiff
from just_plane.pictures.rows import Picture, RowsFile, pictures_of
from just_plane.pictures.tiles import SIDE, Held, level_count, tile_of, write_tiles

FACTS = FrameFacts("", "JPEG", 90, 150, 1, None, "", None, None, None, None, "", False)


def kept(path, *pictures):
    with RowsFile(path, len(pictures)) as file:
        for picture in pictures:
            take = file.begin(picture.shape)
            for first in range(0, len(picture), 37):
                take(picture[first : first + 37])
    return pictures_of(path)


@pytest.fixture
def noise():
    return np.random.default_rng(1).integers(0, 65536, (2, 150, 90, 3)).astype(np.uint16)


def test_pictures_come_back_as_they_were_written_whole_and_in_part(tmp_path, noise):
    one, other = kept(tmp_path / "rows", *noise)
    assert (Picture([one]).read(0, 150) == noise[0]).all()
    assert (Picture([other]).read(60, 61) == noise[1][60:61]).all()
    both = Picture([one, other])
    assert both.shape == (300, 90, 3)
    assert (both.read(100, 200) == np.concatenate([noise[0][100:], noise[1][:50]])).all()
    assert (np.concatenate(list(both.strips(64))) == np.concatenate(noise)).all()


def test_work_that_breaks_off_leaves_no_file(tmp_path, noise):
    with suppress(RuntimeError), RowsFile(tmp_path / "rows", 1) as file:
        file.begin(noise[0].shape)(noise[0])
        raise RuntimeError
    assert list(tmp_path.iterdir()) == []
    with pytest.raises(WriteError), RowsFile(tmp_path / "nowhere" / "rows", 1) as file:
        file.begin(noise[0].shape)


def test_a_proof_as_tiff_holds_the_very_numbers_red_first(tmp_path, noise):
    picture = Picture(kept(tmp_path / "rows", noise[0]))
    proof_tiff(tmp_path / "proof.tif", picture, FACTS, 100.0)
    assert (tifffile.imread(tmp_path / "proof.tif") == noise[0][..., ::-1]).all()
    with tifffile.TiffFile(tmp_path / "proof.tif") as opened:
        assert opened.pages[0].tags["XResolution"].value == (1000, 1)


def test_there_are_as_many_sizes_as_it_takes_to_fit_one_tile():
    assert [level_count(side, 300) for side in (1, 512, 513, 1024, 1025, 9504)] == [1, 1, 2, 2, 3, 6]


def test_tiles_put_together_are_the_picture_and_smaller_ones_its_means(tmp_path):
    rows, columns = np.mgrid[:1300, :1100].astype(np.float32)
    waves = 127 + 60 * np.sin(rows / 90) + 60 * np.sin(columns / 70)
    picture = np.stack([waves, waves[::-1], waves[:, ::-1]], axis=-1).astype(np.uint8)
    write_tiles(tmp_path / "proof.tiles", Held(picture))
    levels = {0: np.zeros((1300, 1100, 3)), 1: np.zeros((650, 550, 3)), 2: np.zeros((325, 275, 3))}
    with zipfile.ZipFile(tmp_path / "proof.tiles") as zipped:
        for name in zipped.namelist():
            level, place = name.removesuffix(".jpg").split("/")
            column, row = (int(part) * SIDE for part in place.split("-"))
            tile = np.array(Image.open(BytesIO(zipped.read(name))))
            assert max(tile.shape) <= SIDE
            levels[int(level)][row : row + tile.shape[0], column : column + tile.shape[1]] = tile
    assert np.abs(levels[0] - picture[..., ::-1]).mean() < 1
    for level, times in ((1, 2), (2, 4)):
        means = picture[..., ::-1].reshape(1300 // times, times, 1100 // times, times, 3).mean(axis=(1, 3))
        assert np.abs(levels[level] - means).mean() < 1.5
    assert tile_of(tmp_path / "proof.tiles", 0, 2, 2)[:2] == b"\xff\xd8"
    assert tile_of(tmp_path / "proof.tiles", 3, 0, 0) is None
    with pytest.raises(OSError, match="nothing"):
        tile_of(tmp_path / "nothing.tiles", 0, 0, 0)


def test_a_picture_of_odd_sides_has_its_last_row_and_column(tmp_path):
    picture = np.full((515, 513, 3), 200, np.uint8)
    write_tiles(tmp_path / "odd.tiles", Held(picture))
    corner = Image.open(BytesIO(tile_of(tmp_path / "odd.tiles", 0, 1, 1)))
    assert corner.size == (1, 3)
    assert Image.open(BytesIO(tile_of(tmp_path / "odd.tiles", 1, 0, 0))).size == (257, 258)
