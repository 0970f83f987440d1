"""Photos beside a build: taken in, missed, changed, carried along."""

import hashlib
import shutil
import struct
import zlib

import pytest

from keelroom.document.file import load
from keelroom.document.photos import LARGEST, carry, folder_of, photos_of, state_of, take_in
from keelroom.errors import DocumentError
from tests.conftest import DEMO
from tests.trials import trial, with_trials


def png(path, shade=0):
    """One grey pixel, by the published format (PNG, ISO 15948)."""

    def chunk(kind, data):
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    head = struct.pack(">IIBBBBB", 1, 1, 8, 0, 0, 0, 0)
    data = chunk(b"IHDR", head) + chunk(b"IDAT", zlib.compress(bytes((0, shade)))) + chunk(b"IEND", b"")
    path.write_bytes(b"\x89PNG\r\n\x1a\n" + data)
    return path


def test_a_photo_is_copied_and_known_by_what_it_holds(tmp_path):
    build, source = tmp_path / "van.keelroom", png(tmp_path / "fan side.png")
    one = take_in(build, source, ())
    assert one.file == "fan side.png"
    assert one.digest == hashlib.sha256(source.read_bytes()).hexdigest()
    assert (folder_of(build) / one.file).read_bytes() == source.read_bytes()
    assert state_of(build, one) == "there"
    again = take_in(build, source, (one,))
    assert (again.file, again.id) == (one.file, "photo2")  # the same picture is not kept twice
    other = take_in(build, png(tmp_path / "fan side.png", shade=9), (one,))
    assert other.file == "fan side 2.png"
    png(folder_of(build) / one.file, shade=200)
    assert state_of(build, one) == "changed"
    (folder_of(build) / one.file).unlink()
    assert state_of(build, one) == "missing"
    assert state_of(None, one) == "missing"


def test_what_is_no_photo_is_refused_and_nothing_is_kept(tmp_path):
    build = tmp_path / "van.keelroom"
    text = tmp_path / "notes.png"
    text.write_text("not a picture")
    huge = png(tmp_path / "huge.png")
    with huge.open("r+b") as file:
        file.truncate(200_000_000)
    assert LARGEST < 200_000_000
    for source, words in ((text, "JPEG or PNG"), (huge, "200 MB"), (tmp_path / "gone.png", "cannot be read")):
        with pytest.raises(DocumentError, match=words):
            take_in(build, source, ())
    assert not folder_of(build).exists()


def test_photos_come_along_to_another_file(tmp_path):
    first, second = tmp_path / "a" / "van.keelroom", tmp_path / "b" / "copy.keelroom"
    first.parent.mkdir()
    second.parent.mkdir()
    one = take_in(first, png(tmp_path / "x.png"), ())
    lost = one.model_copy(update={"id": "photo2", "file": "lost.png"})
    build = with_trials(load(DEMO), trial(photos=(one, lost)))
    assert list(photos_of(build)) == [one, lost]
    assert carry(build, first, second) == ("lost.png",)
    assert state_of(second, one) == "there"
    assert carry(build, second, second) == ()
    assert carry(build, None, second) == ()
    shutil.rmtree(folder_of(first))
    assert state_of(second, one) == "there"
