"""Work on other hosts: met on this machine, and in a studio of three hosts that the test makes itself."""

import ipaddress
import os
import shutil
import signal
import socket
import subprocess
import sys
import time
from datetime import UTC, datetime, timedelta

import pytest
from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import NameOID

from just_plane.cli import main
from just_plane.contract.stack_numbers import StackNumbers
from just_plane.frames.finishing import REPORT
from just_plane.jobs.embedded import EmbeddedEngine
from just_plane.jobs.hosts import HostsEngine, HostsError, certificates_in, checked_address
from just_plane.jobs.requests import check_request, result_file, results_folder
from just_plane.jobs.runner import Runner
from just_plane.store.folder import open_store
from stacks.camera import Faults, write
from stacks.kept import stack_of

pytestmark = pytest.mark.xdist_group("hosts")
pytest.importorskip("distributed")
PATIENCE_S = 120
ADDRESSES = ("10.77.31.1", "10.77.31.2", "10.77.31.3", "10.77.31.4")
"""The server's, and those of the three hosts."""


def until(what):
    end = time.monotonic() + PATIENCE_S
    while time.monotonic() < end:
        if what():
            return
        time.sleep(0.05)
    raise AssertionError("it did not come")


def free_port():
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]


class Programs:
    """Programs of this project that run beside the test, each in a group of processes of its own."""

    def __init__(self):
        self.started = []

    def start(self, *arguments, inside=()):
        command = [*inside, sys.executable, "-m", "just_plane.cli", *arguments]
        program = subprocess.Popen(
            command, start_new_session=True, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL
        )
        self.started.append(program)
        return program

    @staticmethod
    def kill(program):
        try:
            os.killpg(program.pid, signal.SIGKILL)
        except ProcessLookupError:
            return
        program.wait()

    def end(self):
        for program in self.started:
            self.kill(program)


@pytest.fixture
def programs():
    running = Programs()
    yield running
    running.end()


@pytest.fixture(scope="module")
def pod(tmp_path_factory):
    folder = tmp_path_factory.mktemp("frames") / "pod"
    write(stack_of("dome", 4, Faults(dead_flash=5), jpeg=False), folder)
    return folder


@pytest.fixture(scope="module")
def here(tmp_path_factory, pod):
    """What this machine's own processes make of the stack: names and bytes."""
    jobs = open_store(tmp_path_factory.mktemp("here")).jobs
    runner = Runner(jobs, EmbeddedEngine(1))
    runner.start()
    try:
        job = ask(jobs, pod)
        until(lambda: jobs.get(job.job_id).state == "done")
        return made(jobs, job)
    finally:
        runner.stop()


def ask(jobs, folder, methods=("depth", "windowed")):
    request, key = check_request(folder, StackNumbers(), list(methods))
    return jobs.ask("check", request, key, "0123456789abcdef")


def made(jobs, job):
    return {path.name: path.read_bytes() for path in results_folder(jobs.folder, job.request_key).iterdir()}


@pytest.mark.parametrize(
    ("address", "said"),
    [
        ("tcp://192.168.1.10:8786", "not encrypted"),
        ("tls://192.168.1.10:8786", "certificates"),
        ("192.168.1.10:8786", "no address"),
        ("tls://192.168.1.10", "no address"),
        ("tls://192.168.1.10:port", "no address"),
        ("http://192.168.1.10:80", "no address"),
    ],
)
def test_an_address_over_which_anybody_could_give_work_is_refused(address, said):
    with pytest.raises(HostsError, match=said):
        checked_address(address, None)


def test_this_machine_may_be_met_without_certificates():
    assert checked_address("tcp://127.0.0.1:8786", None) == "tcp://127.0.0.1:8786"
    assert checked_address("tcp://localhost:8786", None) == "tcp://localhost:8786"


def test_missing_certificates_and_nobody_there_are_said_in_words(tmp_path, capsys):
    (tmp_path / "authority.pem").write_text("x")
    with pytest.raises(HostsError, match=r"no certificate\.pem"):
        certificates_in(tmp_path)
    data = str(tmp_path / "data")
    assert main(["serve", "--data", data, "--port", "0", "--hosts", "tcp://10.1.2.3:8786"]) == 1
    assert "not encrypted" in capsys.readouterr().err
    nobody = f"tcp://127.0.0.1:{free_port()}"
    engine = HostsEngine(nobody, None, tmp_path)
    with pytest.raises(HostsError, match="No scheduler answers"):
        engine.meet()
    assert main(["serve", "--data", data, "--port", "0", "--certificates", str(tmp_path)]) == 2
    assert "--hosts" in capsys.readouterr().err
    assert main(["work", "--hosts", "tcp://10.1.2.3:8786"]) == 2
    assert main(["meet", "--host", "10.1.2.3"]) == 2


def test_work_is_done_by_two_processes_through_kills_of_both_kinds(tmp_path, programs, pod, here):
    port = free_port()
    address = f"tcp://127.0.0.1:{port}"
    scheduler = programs.start("meet", "--host", "127.0.0.1", "--port", str(port))
    workers = [programs.start("work", "--hosts", address, "--processes", "1") for _ in range(2)]
    jobs = open_store(tmp_path / "data").jobs
    engine = HostsEngine(address, None, jobs.folder)
    until(lambda: engine.workers == 2)
    assert engine.meet() == 2
    runner = Runner(jobs, engine)
    runner.start()
    try:
        job = ask(jobs, pod)
        runner.wake()
        until(lambda: any(task.state == "done" for task in runner.work.tasks(job.job_id)) or _over(jobs, job))
        programs.kill(workers[0])
        until(lambda: _over(jobs, job))
        assert jobs.get(job.job_id).state == "done", jobs.get(job.job_id).message
        assert made(jobs, job) == here
        # The scheduler is lost in mid-job, and comes back as a service would start it again, and its hosts with it.
        second = ask(jobs, pod, ["pyramid"])
        runner.wake()
        until(lambda: runner.work.tasks(second.job_id) or _over(jobs, second))
        programs.kill(scheduler)
        programs.kill(workers[1])
        programs.start("meet", "--host", "127.0.0.1", "--port", str(port))
        programs.start("work", "--hosts", address, "--processes", "1")
        until(lambda: _over(jobs, second))
        assert jobs.get(second.job_id).state == "done", jobs.get(second.job_id).message
        assert result_file(jobs, second, REPORT).exists()
    finally:
        runner.stop()


def _over(jobs, job):
    return jobs.get(job.job_id).state in ("done", "failed", "cancelled")


def authority(folder, *names):
    """A studio's own authority, and one certificate of it for all its machines."""
    folder.mkdir(parents=True)
    keys = [ec.generate_private_key(ec.SECP256R1()) for _ in range(2)]
    subjects = [x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, name)]) for name in ("Studio", "host")]
    for place, name in enumerate(("authority", "certificate")):
        builder = (
            x509.CertificateBuilder()
            .subject_name(subjects[place])
            .issuer_name(subjects[0])
            .public_key(keys[place].public_key())
            .serial_number(x509.random_serial_number())
            .not_valid_before(datetime.now(UTC) - timedelta(days=1))
            .not_valid_after(datetime.now(UTC) + timedelta(days=2))
            .add_extension(x509.BasicConstraints(ca=place == 0, path_length=None), critical=True)
        )
        if place == 1:
            alternatives = x509.SubjectAlternativeName([x509.IPAddress(ipaddress.ip_address(each)) for each in names])
            builder = builder.add_extension(alternatives, critical=False)
        signed = builder.sign(keys[0], hashes.SHA256())
        (folder / f"{name}.pem").write_bytes(signed.public_bytes(serialization.Encoding.PEM))
    private = keys[1].private_bytes(
        serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption()
    )
    (folder / "key.pem").write_bytes(private)
    return folder


def run(*command):
    return subprocess.run(command, capture_output=True, check=False).returncode == 0


@pytest.fixture
def studio():
    """Three hosts on a network of their own, each with its own address; nothing of it is left."""
    if os.geteuid() != 0 or shutil.which("ip") is None:
        pytest.skip("hosts of one's own can be made by root and with iproute2 alone")
    hosts = [f"jp-host-{number}" for number in (1, 2, 3)]
    try:
        made_all = run("ip", "link", "add", "jp-studio", "type", "bridge")
        made_all &= run("ip", "addr", "add", f"{ADDRESSES[0]}/24", "dev", "jp-studio")
        made_all &= run("ip", "link", "set", "jp-studio", "up")
        for number, host in enumerate(hosts, 1):
            cable, plug = f"jp-cable-{number}", f"jp-plug-{number}"
            made_all &= run("ip", "netns", "add", host)
            made_all &= run("ip", "link", "add", cable, "type", "veth", "peer", "name", plug)
            made_all &= run("ip", "link", "set", cable, "master", "jp-studio", "up")
            made_all &= run("ip", "link", "set", plug, "netns", host)
            inside = ("ip", "netns", "exec", host, "ip")
            made_all &= run(*inside, "addr", "add", f"{ADDRESSES[number]}/24", "dev", plug)
            made_all &= run(*inside, "link", "set", plug, "up") and run(*inside, "link", "set", "lo", "up")
        if not made_all:
            pytest.skip("this machine does not let hosts of one's own be made")
        yield [("ip", "netns", "exec", host) for host in hosts]
    finally:
        for host in hosts:
            run("ip", "netns", "del", host)
        run("ip", "link", "del", "jp-studio")


def test_a_studio_of_three_hosts_does_the_work_over_its_network_encrypted(tmp_path, programs, studio, pod, here):
    certificates = authority(tmp_path / "certificates", *ADDRESSES)
    address = f"tls://{ADDRESSES[1]}:8786"
    programs.start("meet", "--host", ADDRESSES[1], "--certificates", str(certificates), inside=studio[0])
    asked = ("work", "--hosts", address, "--processes", "1", "--certificates", str(certificates))
    workers = [programs.start(*asked, inside=host) for host in studio[1:]]
    jobs = open_store(tmp_path / "data").jobs
    engine = HostsEngine(address, certificates_in(certificates), jobs.folder)
    until(lambda: engine.workers == 2)
    assert engine.meet() == 2
    foreign = authority(tmp_path / "foreign", *ADDRESSES)
    with pytest.raises(HostsError, match="does not know this certificate"):
        HostsEngine(address, certificates_in(foreign), jobs.folder).meet()
    runner = Runner(jobs, engine)
    runner.start()
    try:
        job = ask(jobs, pod)
        runner.wake()
        until(lambda: any(task.state == "sent" for task in runner.work.tasks(job.job_id)) or _over(jobs, job))
        programs.kill(workers[1])  # one host is switched off in mid-job
        until(lambda: _over(jobs, job))
        assert jobs.get(job.job_id).state == "done", jobs.get(job.job_id).message
        assert made(jobs, job) == here
    finally:
        runner.stop()
