"""Recovery copies, and files that others write, hold or forbid: nothing is lost and nothing hangs."""

import os
import signal
import socket
import stat
import subprocess
import sys
import threading
from pathlib import Path

import pytest

from keelroom.document import autosave as autosave_module
from keelroom.document import file, writing
from keelroom.document.autosave import Autosave, Keeper, Origin
from keelroom.document.edits import apply, set_value
from keelroom.document.quantity import quantity
from keelroom.errors import DocumentError, readable

MASS = ("brief", "vehicle", "mass")


def kilos(build, mass):
    return apply(build, set_value(MASS, quantity(f"{mass} kg", "mass"), ""))


def left_by_a_dead_window(folder: Path, build, origin="") -> Path:
    """A copy whose owner is gone: the lock is let go of as the system does when a process ends."""
    dead = Autosave(folder)
    dead.keep(build, Origin(origin))
    os.close(dead._held)
    return dead.path


# copies


def test_a_copy_is_its_owners_alone(demo, tmp_path):
    folder = tmp_path / "state"
    path = left_by_a_dead_window(folder, demo)
    assert stat.S_IMODE(folder.stat().st_mode) == 0o700
    assert [stat.S_IMODE(p.stat().st_mode) for p in (path, path.with_suffix(".origin"), path.with_suffix(".lock"))] == [
        0o600
    ] * 3


def test_a_dead_windows_copy_is_found_and_a_living_ones_is_not(demo, tmp_path):
    living = Autosave(tmp_path)
    living.keep(demo, Origin("/somewhere/van.keelroom"))
    assert not Autosave(tmp_path).left_behind()
    os.close(living._held)
    found = Autosave(tmp_path).left_behind()
    assert [(r.build, r.origin) for r in found] == [(demo, "/somewhere/van.keelroom")]
    Autosave(tmp_path).forget(found[0])
    assert not any(tmp_path.iterdir())


@pytest.mark.parametrize("name", ["own", "1", "9" * 30, "", "x-y", "7" * 200])
def test_names_and_notes_of_any_kind(demo, tmp_path, name):
    """Own and reused process ids, numbers no system counts to, broken notes: found, and never written over."""
    for number, note in enumerate(
        (None, b"", b"[]", b'{"origin": 3}', b'{"origin": "a\\u0000b"}', b"\xff", b"[" * 100000)
    ):
        folder = tmp_path / str(number)
        folder.mkdir()
        copy = folder / f"recovery-{os.getpid() if name == 'own' else name}.keelroom"
        copy.write_bytes(file.serialised(demo))
        if note is not None:
            copy.with_suffix(".origin").write_bytes(note)
        mine = Autosave(folder)
        mine.keep(kilos(demo, 1), Origin())
        assert [(r.build, r.origin) for r in mine.left_behind()] == [(demo, "")]
        assert copy.read_bytes() == file.serialised(demo)


def test_what_cannot_be_used_is_passed_over_with_a_word(demo, tmp_path):
    good = left_by_a_dead_window(tmp_path, demo)
    (tmp_path / "recovery-dangling.keelroom").symlink_to(tmp_path / "nowhere")
    (tmp_path / "recovery-link.keelroom").symlink_to(good)
    (tmp_path / "recovery-broken.keelroom").write_text("{")
    (tmp_path / "recovery-folder.keelroom").mkdir()
    os.mkfifo(tmp_path / "recovery-pipe.keelroom")
    with socket.socket(socket.AF_UNIX) as bound:
        bound.bind(str(tmp_path / "recovery-s.keelroom"))
        left = Autosave(tmp_path).left_behind()
    assert [r.path for r in left] == [good]
    assert len(left.passed_over) == 6
    assert all("left where it is" in word for word in left.passed_over)


def test_a_copy_is_offered_for_its_file_by_any_of_its_names(demo, tmp_path):
    van, other = tmp_path / "van.keelroom", tmp_path / "other.keelroom"
    file.save(demo, van)
    (tmp_path / "link.keelroom").symlink_to(van)
    state = tmp_path / "state"
    left_by_a_dead_window(state, demo, str(van))
    left_by_a_dead_window(state, demo, str(other))
    assert [r.origin for r in Autosave(state).left_behind(tmp_path / "link.keelroom")] == [str(van)]


def test_the_story_says_file_date_and_what_differs(demo, tmp_path):
    van = tmp_path / "van.keelroom"
    file.save(demo, van)
    path = left_by_a_dead_window(tmp_path / "state", kilos(demo, 2222), str(van))
    os.utime(van, (1_000_000_000, 1_000_000_000))
    os.utime(path, (1_000_086_400, 1_000_086_400))
    (found,) = Autosave(tmp_path / "state").left_behind()
    assert "kept 2001-09-1" in found.story()
    assert "van.keelroom" in found.story()
    assert "Vehicle mass: 2222 kg" in found.story()
    assert "written later" not in found.story()
    os.utime(van, (1_100_000_000, 1_100_000_000))
    assert "written later, 2004-11-" in found.story(), "a copy older than the file is said to be"
    van.write_text("{")
    assert "cannot be read now" in found.story()


def test_going_on_with_a_copy_writes_and_removes_nothing(demo, tmp_path, monkeypatch):
    """On a full disk the copy is all there is."""
    path = left_by_a_dead_window(tmp_path, kilos(demo, 2222), "")
    before = path.read_bytes()

    def full(*_args):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(writing.os, "fsync", full)
    mine = Autosave(tmp_path)
    (found,) = mine.left_behind()
    mine.adopt(found)
    with pytest.raises(DocumentError, match="No space left"):
        mine.keep(kilos(demo, 3333), Origin())
    assert path.read_bytes() == before
    assert [p.suffix for p in sorted(tmp_path.iterdir())] == [".keelroom", ".lock", ".origin"]
    with pytest.raises(DocumentError, match="Another window"):
        Autosave(tmp_path).adopt(found)


def test_a_state_folder_that_cannot_be_made_is_said_once(demo, tmp_path):
    (tmp_path / "state").write_text("a file stands where the folder should")
    said: list[str] = []
    keeper = Keeper(Autosave(tmp_path / "state"), said.append)
    for mass in range(4):
        assert not keeper.write_now(kilos(demo, 2000 + mass), Origin())
    assert len(said) == 1
    assert "No recovery copies can be kept" in said[0]
    keeper.end()


# the keeper


def test_something_is_kept_however_fast_one_works(demo, tmp_path):
    """A build offered again and again before the last was written: a copy comes all the same, and soon."""
    autosave = Autosave(tmp_path)
    written = threading.Event()
    builds = [kilos(demo, 2000 + n) for n in range(50)]
    keeper = Keeper(autosave, pytest.fail, within=0.05)
    original = autosave.keep
    autosave.keep = lambda build, origin: (original(build, origin), written.set())
    n = 0
    while not written.is_set():  # never a pause as long as `within`
        keeper.offer(builds[n % 50], Origin())
        n += 1
        assert n < 10_000_000
    keeper.end()
    assert b"kg" in autosave.path.read_bytes()


def test_what_rests_is_not_written_and_what_is_written_now_is_the_newest(demo, tmp_path):
    autosave = Autosave(tmp_path)
    keeper = Keeper(autosave, pytest.fail, within=0.0)
    keeper.offer(kilos(demo, 2000), Origin())
    assert keeper.write_now(kilos(demo, 3000), Origin())
    keeper.end()
    keeper._thread.join()
    assert b'"3000 kg"' in autosave.path.read_bytes()
    autosave.discard()
    assert not any(tmp_path.iterdir())


def test_offering_does_not_wait_for_a_slow_disk(demo, tmp_path):
    autosave, begun, go = Autosave(tmp_path), threading.Event(), threading.Event()
    autosave.keep = lambda build, origin: (begun.set(), go.wait(30))
    keeper = Keeper(autosave, pytest.fail, within=0.0)
    keeper.offer(demo, Origin())
    assert begun.wait(30)
    keeper.offer(demo, Origin())  # would hang here if it waited for the disk
    go.set()
    keeper.end()


# files of others


def test_a_file_changed_behind_is_not_replaced_unasked(demo, tmp_path):
    van = tmp_path / "van.keelroom"
    file.save(demo, van)
    opened = file.read(van)
    file.save(kilos(demo, 2222), van)
    theirs = van.read_bytes()
    with pytest.raises(DocumentError) as caught:
        file.save(kilos(demo, 3333), van, opened.digest)
    assert caught.value.code == "changed_on_disk"
    assert van.read_bytes() == theirs
    file.save(kilos(demo, 3333), van)
    van.unlink()
    file.save(demo, van, opened.digest)  # gone: nothing can be written over


def test_a_link_goes_on_pointing_at_its_file(demo, tmp_path):
    (tmp_path / "shop").mkdir()
    van, link = tmp_path / "shop/van.keelroom", tmp_path / "van.keelroom"
    file.save(demo, van)
    link.symlink_to(van)
    file.save(kilos(demo, 2222), link)
    assert link.is_symlink()
    assert file.load(van) == kilos(demo, 2222)


def test_a_read_only_file_is_said_and_left(demo, tmp_path):
    van = tmp_path / "van.keelroom"
    file.save(demo, van)
    van.chmod(0o444)
    with pytest.raises(DocumentError, match="read-only") as caught:
        file.save(kilos(demo, 2222), van)
    assert caught.value.code == "read_only"
    assert file.load(van) == demo


def test_an_owner_is_kept_or_said(demo, tmp_path, monkeypatch):
    van = tmp_path / "van.keelroom"
    file.save(demo, van)
    asked: list[tuple[int, int]] = []
    real = os.stat_result

    def theirs(self):
        found = os.stat(self)
        return real((found.st_mode, *found[1:4], 54321, 54322, *found[6:])) if self == van else found

    def may_not(handle, uid, gid):
        asked.append((uid, gid))
        raise PermissionError(1, "Operation not permitted")

    monkeypatch.setattr(Path, "stat", theirs)
    monkeypatch.setattr(writing.os, "fchown", may_not)
    assert "yours now" in file.save(demo, van).note
    assert asked == [(54321, 54322), (-1, 54322)]
    monkeypatch.setattr(writing.os, "fchown", lambda handle, uid, gid: asked.append((uid, gid)))
    assert file.save(demo, van).note == ""
    assert asked[-1] == (54321, 54322)


@pytest.mark.parametrize("name", ["zero", "pipe", "folder", "a\0b", "x" * 300])
def test_what_is_no_file_is_refused_at_once(demo, tmp_path, name):
    """Devices are only read: a mistake in writing must not reach them."""
    os.mkfifo(tmp_path / "pipe")
    (tmp_path / "folder").mkdir()
    (tmp_path / "zero").symlink_to("/dev/zero")
    before = sorted(tmp_path.iterdir())
    with pytest.raises(DocumentError):
        file.load(tmp_path / name)
    if name != "zero":
        with pytest.raises(DocumentError):
            writing.write_atomically(tmp_path / name, b"")
    assert sorted(tmp_path.iterdir()) == before


def test_refusals_carry_nothing_raw_of_others():
    nasty = "\x1b[2J\x07" + "é" * 5000
    for data in (b'{"format": "keelroom-build", "version": 3, "%b": 1}', b'{"%b": 1, "%b": 2}'):
        body = data.replace(b"%b", nasty.replace("\x1b", "\\u001b").replace("\x07", "\\u0007").encode())
        with pytest.raises(DocumentError) as caught:
            file.parse(body, Path(nasty))
        assert caught.value.message.isprintable()
        assert caught.value.message.count("é") <= 300
    assert readable("a" * 10, 7) == "aaaa…aa"
    assert len(readable("a" * 5000)) == 300


def test_many_keys_are_read_in_a_moment(demo):
    """Counted, not compared each with each: the number of comparisons grows with the keys, not with their square."""
    body = '{"format": "keelroom-build", "version": 3, ' + ", ".join(f'"k{n}": 1' for n in range(60_000)) + ', "k7": 2}'
    with pytest.raises(DocumentError, match="“k7” twice"):
        file.parse(body.encode(), Path("x"))


@pytest.mark.parametrize("doubt", ["1e308", "-1.0"])
def test_a_doubt_is_a_length_not_a_direction(demo, doubt):
    text = file.serialised(demo).decode().replace('"doubt": null', f'"doubt": {doubt}', 1)
    with pytest.raises(DocumentError, match="doubt"):
        file.parse(text.encode(), Path("x"))


# leftovers

KILLED = """
import os, signal, sys
from pathlib import Path
from keelroom.document import writing
writing.os.replace = lambda *_: os.kill(os.getpid(), signal.SIGKILL)
writing.write_atomically(Path(sys.argv[1]), b"half")
"""


def test_what_a_killed_writer_left_is_cleared_and_a_living_ones_is_not(demo, tmp_path):
    van = tmp_path / "van.keelroom"
    done = subprocess.run([sys.executable, "-c", KILLED, str(van)], timeout=60)
    assert done.returncode == -signal.SIGKILL
    (left,) = tmp_path.iterdir()
    living = os.open(tmp_path / (left.name[:-13] + "living00.part"), os.O_CREAT | os.O_RDWR)
    writing._own(living)
    writing.clear_abandoned(tmp_path, tmp_path / "other.keelroom")
    assert left.exists(), "another file's"
    writing.clear_abandoned(tmp_path, van)
    assert [p.name for p in tmp_path.iterdir()] == [left.name[:-13] + "living00.part"]
    os.close(living)
    assert autosave_module.Autosave(tmp_path).left_behind() == []
    assert not any(tmp_path.iterdir())
