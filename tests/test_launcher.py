"""`./plank` itself: what it says, and a database that starts, is joined, killed, backed up and restored."""

import errno
import os
import shutil
import signal
import socket
import subprocess
from collections.abc import Iterator
from pathlib import Path

import pytest

from launcher import backup
from launcher.house import DATA, Trouble, in_words
from launcher.main import main
from launcher.postgres import Cluster, binaries, running

ROOT = Path(__file__).parents[1]


def plank(*words: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run([ROOT / "plank", *words], capture_output=True, text=True, cwd="/")


def test_alone_it_explains_itself() -> None:
    told = plank()
    assert told.returncode == 0
    for command in ("demo", "serve", "worker", "test", "plan", "audit", "backup", "restore"):
        assert f"./plank {command}" in told.stdout


def test_an_unknown_command_is_named() -> None:
    told = plank("dmeo")
    assert told.returncode == 2 and "no command 'dmeo'" in told.stderr


def test_plan_and_audit_take_paths_of_the_callers_folder(tmp_path: Path) -> None:
    shutil.copy(ROOT / "docs" / "examples" / "settle.job.json", tmp_path / "job.json")
    done = subprocess.run([ROOT / "plank", "plan", "job.json", "--out", "plan.json", "--seconds", "1"], cwd=tmp_path)
    assert done.returncode == 0 and (tmp_path / "plan.json").exists()
    assert subprocess.run([ROOT / "plank", "audit", "job.json", "plan.json"], cwd=tmp_path).returncode == 0
    (tmp_path / "job.json").write_text("{}")
    refused = subprocess.run([ROOT / "plank", "plan", "job.json", "--out", "x"], cwd=tmp_path, capture_output=True, text=True)
    assert refused.returncode == 2 and "$.format: is missing" in refused.stderr


def test_an_interrupted_plan_is_written_and_says_so(tmp_path: Path) -> None:
    job = ROOT / "docs" / "examples" / "settle.job.json"
    from launcher import python_env

    running_plan = subprocess.Popen(
        [python_env.ensure("core"), "-c", "import sys; from vividplank.command import main; print('ready', "
         "flush=True); sys.exit(main(sys.argv[1:]))", "plan", job, "--out", tmp_path / "p.json", "--seconds", "600"],
        cwd=ROOT, stdout=subprocess.PIPE)
    assert running_plan.stdout and running_plan.stdout.readline() == b"ready\n"
    while "SigCgt" in (status := Path(f"/proc/{running_plan.pid}/status").read_text()):
        caught = int(next(line for line in status.splitlines() if line.startswith("SigCgt")).split()[1], 16)
        if caught >> (signal.SIGTERM - 1) & 1:  # it listens for the signal now
            break
    running_plan.terminate()
    assert running_plan.wait(60) == 3 and (tmp_path / "p.json").exists()


def test_what_was_compiled_is_thrown_away_when_a_kernel_has_changed(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    from launcher import python_env

    monkeypatch.setattr(python_env, "ROOT", tmp_path)
    folder = tmp_path / "vividplank" / "deep"
    kernel, kept = folder / "room_kernel.py", folder / "__pycache__" / "room.1.nbc"
    kept.parent.mkdir(parents=True)

    def kept_after(source: str, python: str = "/bin/true") -> bool:
        kernel.write_text(source)
        kept.touch()
        python_env.compile_kernels(Path(python))
        return kept.exists()

    assert [kept_after(source) for source in ("one", "one", "two", "two")] == [False, True, False, True]
    # What could not be compiled is tried again.
    assert [kept_after("three", "/bin/false"), kept_after("three"), kept_after("three")] == [False, False, True]


def test_a_taken_port_is_told_with_what_to_do(capsys: pytest.CaptureFixture[str]) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        assert main(["serve", "--port", str(port)]) == 1
    assert f"port {port} is taken by another program" in (told := capsys.readouterr().err)
    assert f"--port {port + 1}" in told


@pytest.mark.parametrize("port", ["0", "80801", "-1", "high"])
def test_a_port_that_cannot_be_is_refused(port: str) -> None:
    told = plank("serve", f"--port={port}")
    assert told.returncode == 2 and "expected a number from 1 to 65535" in told.stderr


def test_a_full_disk_is_told_in_words() -> None:
    assert "the disk is full" in in_words(OSError(errno.ENOSPC, "No space left on device", "x"))
    assert "no permission" in in_words(PermissionError(errno.EACCES, "Permission denied", "x"))


@pytest.fixture
def fresh() -> Iterator[Path]:
    folder = DATA / f"postgres-{os.getpid()}"
    yield folder
    shutil.rmtree(Cluster(folder).folder, ignore_errors=True)


def test_a_database_is_joined_and_starts_again_after_a_kill(fresh: Path) -> None:
    with running(fresh) as first:
        joined = Cluster(fresh)
        joined.start()
        assert joined.port == first.port and joined.process is None
        joined.stop()  # not ours to stop
        psql = binaries() / "psql"
        assert first.run(psql, "-d", "plank", "-c", "create table kept as select 1 as n").returncode == 0
        assert first.process
        first.process.send_signal(signal.SIGKILL)
        first.process.wait()
    with running(fresh) as again:
        assert again.process
        assert again.run(psql, "-d", "plank", "-qtAc", "select n from kept").stdout.strip() == "1"
        listening = subprocess.run(["cat", "/proc/net/tcp"], capture_output=True, text=True).stdout
        assert f"0100007F:{again.port:04X}" in listening and f"00000000:{again.port:04X}" not in listening


def test_half_a_database_from_a_start_that_was_cut_off_is_made_anew(fresh: Path) -> None:
    cluster = Cluster(fresh)
    (cluster.folder / "data" / "base").mkdir(parents=True)
    with running(fresh) as started:
        assert started.port


def test_a_backup_brings_everything_back(fresh: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(backup, "running", lambda: running(fresh))
    file = tmp_path / "all.plank"
    psql = binaries() / "psql"
    with running(fresh) as cluster:
        cluster.run(psql, "-d", "plank", "-c", "create table kept as select 7 as n")
        backup.backup(file)
        with pytest.raises(Trouble, match="is there already"):
            backup.backup(file)
        cluster.run(psql, "-d", "plank", "-c", "update kept set n = 8")
        backup.restore(file)
        assert cluster.run(psql, "-d", "plank", "-qtAc", "select n from kept").stdout.strip() == "7"


def test_a_restore_of_something_else_changes_nothing(tmp_path: Path) -> None:
    with pytest.raises(Trouble, match="there is no file"):
        backup.restore(tmp_path / "none")
    (tmp_path / "x").write_text("hello")
    with pytest.raises(Trouble, match=r"is no backup of Vivid Plank"):
        backup.restore(tmp_path / "x")
