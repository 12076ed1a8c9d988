"""`./plank` itself: what it says, and a database that starts, is joined, killed, backed up and
restored.
"""

import errno
import json
import os
import shutil
import signal
import socket
import subprocess
import sys
import threading
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from alembic import command
from alembic.config import Config
from sqlalchemy import create_engine
from sqlalchemy.orm import Session

from launcher import backup, postgres
from launcher.main import main
from launcher.paths import DATA, Trouble, in_words
from launcher.postgres import Cluster, binaries, running
from tests.core.layout.model.test_audit import JOB
from tests.test_processes import alive
from tests.waiting import until
from vividplank.core.exchange import read_job
from vividplank.core.survey.instruments import NoInstruments
from vividplank.store import layouts, projects
from vividplank.store.database import engine
from vividplank.web.app import create_app
from vividplank.web.asking import Asking

ROOT = Path(__file__).parents[1]


def plank(*words: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run([ROOT / "plank", *words], capture_output=True, text=True, cwd="/")


def test_alone_it_explains_itself() -> None:
    told = plank()
    assert told.returncode == 0
    for word in (
        "demo",
        "serve",
        "worker",
        "address",
        "test",
        "plan",
        "audit",
        "backup",
        "restore",
    ):
        assert f"./plank {word}" in told.stdout


def test_an_unknown_command_is_named() -> None:
    told = plank("dmeo")
    assert told.returncode == 2 and "no command 'dmeo'" in told.stderr


def test_plan_and_audit_take_paths_of_the_callers_folder(tmp_path: Path) -> None:
    shutil.copy(ROOT / "docs" / "examples" / "settle.job.json", tmp_path / "job.json")
    done = subprocess.run(
        [ROOT / "plank", "plan", "job.json", "--out", "plan.json", "--seconds", "1"], cwd=tmp_path
    )
    assert done.returncode == 0 and (tmp_path / "plan.json").exists()
    assert (
        subprocess.run([ROOT / "plank", "audit", "job.json", "plan.json"], cwd=tmp_path).returncode
        == 0
    )
    (tmp_path / "job.json").write_text("{}")
    refused = subprocess.run(
        [ROOT / "plank", "plan", "job.json", "--out", "x"],
        cwd=tmp_path,
        capture_output=True,
        text=True,
    )
    assert refused.returncode == 2 and "$.format: is missing" in refused.stderr


def test_an_interrupted_plan_is_written_and_says_so(tmp_path: Path) -> None:
    job = ROOT / "docs" / "examples" / "settle.job.json"
    from launcher import python_env

    running_plan = subprocess.Popen(
        [
            python_env.ensure("core"),
            "-c",
            (
                "import sys; from vividplank.command import main; print('ready', "
                "flush=True); sys.exit(main(sys.argv[1:]))"
            ),
            "plan",
            job,
            "--out",
            tmp_path / "p.json",
            "--seconds",
            "600",
        ],
        cwd=ROOT,
        stdout=subprocess.PIPE,
    )
    assert running_plan.stdout and running_plan.stdout.readline() == b"ready\n"
    while "SigCgt" in (status := Path(f"/proc/{running_plan.pid}/status").read_text()):
        caught = int(
            next(line for line in status.splitlines() if line.startswith("SigCgt")).split()[1], 16
        )
        if caught >> (signal.SIGTERM - 1) & 1:  # it listens for the signal now
            break
    running_plan.terminate()
    assert running_plan.wait(60) == 3 and (tmp_path / "p.json").exists()


def test_what_was_compiled_is_thrown_away_when_a_kernel_has_changed(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    from launcher import python_env

    monkeypatch.setattr(python_env, "ROOT", tmp_path)
    folder = tmp_path / "vividplank" / "deep"
    kernel, kept = folder / "knapsack_kernel.py", folder / "__pycache__" / "room.1.nbc"
    kept.parent.mkdir(parents=True)

    def kept_after(source: str, python: str = "/bin/true") -> bool:
        kernel.write_text(source)
        kept.touch()
        with python_env.compiling(Path(python)):
            pass
        return kept.exists()

    assert [kept_after(source) for source in ("one", "one", "two", "two")] == [
        False,
        True,
        False,
        True,
    ]
    # What could not be compiled is tried again.
    assert [kept_after("three", "/bin/false"), kept_after("three"), kept_after("three")] == [
        False,
        False,
        True,
    ]


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
        assert (
            first.run(psql, "-d", "plank", "-c", "create table kept as select 1 as n").returncode
            == 0
        )
        assert first.process
        first.process.send_signal(signal.SIGKILL)
        first.process.wait()
    with running(fresh) as again:
        assert again.process
        assert again.run(psql, "-d", "plank", "-qtAc", "select n from kept").stdout.strip() == "1"
        listening = subprocess.run(["cat", "/proc/net/tcp"], capture_output=True, text=True).stdout
        assert (
            f"0100007F:{again.port:04X}" in listening
            and f"00000000:{again.port:04X}" not in listening
        )


def test_a_database_that_dies_under_its_launcher_is_started_again_at_its_address(
    fresh: Path, capsys: Any
) -> None:
    psql = binaries() / "psql"
    with running(fresh) as cluster:
        cluster.run(psql, "-d", "plank", "-c", "create table kept as select 1 as n")
        cluster.keep_running()
        assert capsys.readouterr().err.count("starting it again") == 0
        before = cluster.port
        assert cluster.process
        cluster.process.kill()
        cluster.process.wait()
        cluster.keep_running()
        assert (
            cluster.port == before
            and "the database has stopped; starting it again" in capsys.readouterr().err
        )
        assert cluster.run(psql, "-d", "plank", "-qtAc", "select n from kept").stdout.strip() == "1"


def test_a_database_that_was_another_launcher_s_is_taken_over_when_that_ends(fresh: Path) -> None:
    joined = Cluster(fresh)
    with running(fresh) as owner:
        joined.start()
        joined.keep_running()
        assert joined.process is None and joined.port == owner.port
    joined.look_again = 0.0
    try:
        joined.keep_running()
        assert joined.process and joined.run(binaries() / "pg_isready").returncode == 0
    finally:
        joined.stop()


def test_one_that_cannot_be_started_is_told_and_tried_again_later(fresh: Path, capsys: Any) -> None:
    with running(fresh) as cluster:
        assert cluster.process
        cluster.process.kill()
        cluster.process.wait()
        settings = cluster.pgdata / "postgresql.conf"
        kept = settings.read_text()
        settings.write_text("nonsense = 1\n")
        cluster.keep_running()
        assert "did not start" in capsys.readouterr().err
        cluster.keep_running()
        assert capsys.readouterr().err == ""  # not at every look
        settings.write_text(kept)
        cluster.retry = 0.0
        cluster.keep_running()
        assert "there again" in capsys.readouterr().err


def test_what_the_database_says_is_kept_within_bounds(
    fresh: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(postgres, "_LOG_MOST", 20_000)
    monkeypatch.setattr(postgres, "_LOG_KEPT", 1_000)
    with running(fresh) as cluster:
        for _ in range(4):
            cluster.run(
                binaries() / "psql",
                "-d",
                "plank",
                "-c",
                "select '" + "x" * 8000 + "' nonsense from nowhere",
            )
        assert cluster.log.stat().st_size > 20_000
        cluster.look_again = 0.0
        cluster.keep_running()
        assert cluster.log.stat().st_size < 3_000
        cluster.run(binaries() / "psql", "-d", "plank", "-c", "select later from nowhere")
        assert "later" in cluster.log.read_text()


def test_an_address_is_told_only_while_somebody_listens(
    fresh: Path, monkeypatch: pytest.MonkeyPatch, capsys: Any
) -> None:
    monkeypatch.setattr("launcher.main.DATA", fresh)
    assert main(["address"]) == 1 and "Start ./plank serve first" in capsys.readouterr().err
    with running(fresh / "postgres") as cluster:
        assert main(["address"]) == 0 and capsys.readouterr().out.strip() == cluster.url()


def test_half_a_database_from_a_start_that_was_cut_off_is_made_anew(fresh: Path) -> None:
    cluster = Cluster(fresh)
    (cluster.folder / "data" / "base").mkdir(parents=True)
    with running(fresh) as started:
        assert started.port


def test_a_backup_brings_everything_back(
    fresh: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
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


def test_a_backup_is_its_owner_s_alone(
    fresh: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(backup, "running", lambda: running(fresh))
    backup.backup(tmp_path / "all.plank")
    assert (tmp_path / "all.plank").stat().st_mode & 0o777 == 0o600


def migrated(cluster: Cluster, revision: str) -> None:
    config = Config()
    config.set_main_option("script_location", str(ROOT / "vividplank" / "store" / "migrations"))
    config.attributes["url"] = cluster.url()
    command.upgrade(config, revision)


def test_an_older_backup_is_restored_over_today_s_database_while_somebody_works(
    fresh: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(backup, "running", lambda: running(fresh))
    psql, file = binaries() / "psql", tmp_path / "old.plank"
    project = (
        "insert into project (name, system, version, demo, method, kerf_crosscut, kerf_rip, "
        "kerf_resaw, allowance_length, "
        "allowance_width, allowance_face, allowance_panel_width, end_trim, min_blank_length, "
        "max_slope) values ('{}', 'in', 1, "
        "false, 'mill-wide', 1, 1, 1, 1, 1, 1, 1, 1, 1, 0)"
    )
    with running(fresh) as cluster:
        migrated(cluster, "0003")
        assert cluster.run(psql, "-d", "plank", "-c", project.format("of old")).returncode == 0
        backup.backup(file)
        migrated(cluster, "head")
        today = (
            "insert into project (name, system, version, demo, shop, workshop) "
            "select 'of today', 'in', 1, false, '{}', min(pk) from workshop"
        )
        assert cluster.run(psql, "-d", "plank", "-c", today).returncode == 0
        monkeypatch.setenv("PLANK_DATABASE", cluster.url())
        client = create_app(Asking(*[lambda pk: None] * 5), NoInstruments()).test_client()
        answers: list[tuple[int, str]] = []
        over = threading.Event()

        def work() -> None:
            while not over.is_set():
                answer = client.get("/api/projects")
                answers.append((answer.status_code, answer.text))

        worker = threading.Thread(target=work)
        worker.start()
        until(lambda: len(answers) > 3)
        backup.restore(file)
        many = len(answers)
        until(lambda: len(answers) > many + 3)
        over.set()
        worker.join()
        assert {code for code, _ in answers} <= {200, 503}
        assert all("the database is starting" in text for code, text in answers if code == 503)
        assert (
            "of today" in answers[0][1]
            and "of old" in answers[-1][1]
            and "of today" not in answers[-1][1]
        )
        assert (
            cluster.run(
                psql, "-d", "plank", "-qtAc", "select milling_version from project"
            ).stdout.strip()
            == "0"
        )
        names = cluster.run(
            psql, "-d", "postgres", "-qtAc", "select datname from pg_database order by 1"
        ).stdout.split()
        assert names == ["plank", "postgres", "template0", "template1"]
        engine(cluster.url()).dispose()


def test_a_backup_that_cannot_be_restored_changes_nothing(
    fresh: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(backup, "running", lambda: running(fresh))
    psql, file = binaries() / "psql", tmp_path / "all.plank"
    with running(fresh) as cluster:
        migrated(cluster, "head")
        backup.backup(file)
        cluster.run(psql, "-d", "plank", "-c", "create table kept as select 7 as n")
        whole = file.read_bytes()
        for content in (
            whole[: len(whole) // 2],
            whole[:3000] + b"\xff" * 400 + whole[3400:],
            b"PGDMP and no more",
        ):
            file.write_bytes(content)
            with pytest.raises(
                Trouble,
                match=r"^nothing was changed: .* is damaged or cut off \([^\n]+\)\. Take another",
            ):
                backup.restore(file)
        cluster.run(psql, "-d", "plank", "-c", "update alembic_version set version_num = '9999'")
        backup.backup(tmp_path / "newer.plank")
        with pytest.raises(Trouble, match="written by a newer Vivid Plank"):
            backup.restore(tmp_path / "newer.plank")
        assert cluster.run(psql, "-d", "plank", "-qtAc", "select n from kept").stdout.strip() == "7"


def test_a_restore_cut_off_between_two_renames_is_made_good_at_the_next_start(fresh: Path) -> None:
    psql = binaries() / "psql"
    with running(fresh) as cluster:
        cluster.run(psql, "-d", "plank", "-c", "create table kept as select 7 as n")
        for statement in (
            "alter database plank with allow_connections false",
            "alter database plank rename to plank_before",
        ):
            assert cluster.run(psql, "-d", "postgres", "-c", statement).returncode == 0
    with running(fresh) as again:
        assert again.run(psql, "-d", "plank", "-qtAc", "select n from kept").stdout.strip() == "7"


def test_a_worker_on_another_machine_needs_the_address_alone_and_ends_with_its_child(
    fresh: Path,
) -> None:
    with running(fresh) as cluster:
        migrated(cluster, "head")
        other = create_engine(cluster.url().replace("postgresql://", "postgresql+psycopg://"))
        with Session(other) as opened, opened.begin():
            project = projects.add(opened, read_job(json.dumps(JOB)), "in")
            made = layouts.ask(opened, project.pk, project.job, 1.0)
        worker = subprocess.Popen(
            [ROOT / "plank", "worker"],
            env={**os.environ, "PLANK_DATABASE": cluster.url()},
            stderr=subprocess.DEVNULL,
        )
        try:

            def done() -> bool:
                with Session(other) as looking:
                    return layouts.load(looking, made.pk).state == "done"

            until(done)
            children = [
                int(p)
                for p in Path(f"/proc/{worker.pid}/task/{worker.pid}/children").read_text().split()
            ]
            assert len(children) == 1 and all(alive(pid) for pid in children)
            worker.send_signal(signal.SIGTERM)
            assert worker.wait(30) == 0
            until(lambda: not any(alive(pid) for pid in children), 30)
        finally:
            worker.kill()
            other.dispose()


def test_a_search_goes_on_while_the_database_is_away_and_is_kept(fresh: Path) -> None:
    with running(fresh) as cluster:
        migrated(cluster, "head")
        other = create_engine(
            cluster.url().replace("postgresql://", "postgresql+psycopg://"), pool_pre_ping=True
        )
        with Session(other) as opened, opened.begin():
            project = projects.add(opened, read_job(json.dumps(JOB)), "in")
            made = layouts.ask(opened, project.pk, project.job, 6.0)

        def state() -> str:
            with Session(other) as looking:
                return layouts.load(looking, made.pk).state

        tree = subprocess.Popen(
            [
                sys.executable,
                "-c",
                (
                    "import os, sys; from launcher.processes import Child, supervise; "
                    "supervise([Child('worker', [sys.executable, '-m', 'vividplank.jobs'])], "
                    "dict(os.environ), lambda: None)"
                ),
            ],
            cwd=ROOT,
            env={**os.environ, "PLANK_DATABASE": cluster.url()},
            stderr=subprocess.DEVNULL,
        )
        try:
            until(lambda: state() == "searching")
            assert cluster.process
            cluster.process.kill()
            cluster.process.wait()
            cluster.keep_running()
            until(lambda: state() in ("done", "failed"))
            assert state() == "done"
        finally:
            tree.send_signal(signal.SIGTERM)
            tree.wait(30)
            other.dispose()


def test_a_restore_of_something_else_changes_nothing(tmp_path: Path) -> None:
    with pytest.raises(Trouble, match="there is no file"):
        backup.restore(tmp_path / "none")
    (tmp_path / "x").write_text("hello")
    with pytest.raises(Trouble, match=r"is no backup of Vivid Plank"):
        backup.restore(tmp_path / "x")
