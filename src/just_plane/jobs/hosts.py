"""Other machines that do the work, met through a scheduler of dask.distributed; the extra ``just-plane[hosts]``.

The scheduler and the machines keep nothing that matters: what is done is told by files in a folder that all of them
see, and what is lost is asked for again. See docs/hosts.md.
"""

import importlib.util
import ipaddress
import threading
import uuid
from concurrent.futures import CancelledError, Future
from contextlib import suppress
from pathlib import Path
from typing import NamedTuple
from urllib.parse import urlsplit

CONNECT_S = 10.0
TOGETHER = ("just_plane", "numpy", "cv2")
"""Packages of which all machines must have the same version, or bytes would differ."""
MOST_SHARES = 16


class HostsError(Exception):
    """Machines that cannot be used; ``message`` and ``remedy`` are sentences."""

    def __init__(self, message, remedy):
        super().__init__(message, remedy)
        self.message = message
        self.remedy = remedy


class HostLostError(Exception):
    """The machine or the scheduler that had a piece of work is gone."""


class Certificates(NamedTuple):
    """Files of a studio's own authority."""

    authority: Path
    certificate: Path
    key: Path


def certificates_in(folder):
    """The three files of a folder.

    Parameters
    ----------
    folder : Path or None

    Returns
    -------
    Certificates or None

    Raises
    ------
    HostsError     One of them is not there.
    """
    if folder is None:
        return None
    found = Certificates(*(Path(folder) / name for name in ("authority.pem", "certificate.pem", "key.pem")))
    for path in found:
        if not path.is_file():
            raise HostsError(
                f"There is no {path.name} in {folder}.",
                "It holds authority.pem, certificate.pem and key.pem: see docs/hosts.md.",
            )
    return found


def checked_address(address, certificates):
    """An address of a scheduler that may be used.

    Parameters
    ----------
    address : str
    certificates : Certificates or None

    Returns
    -------
    str

    Raises
    ------
    HostsError   Not an address, or one over which anybody could give this machine work.
    """
    parts = urlsplit(address)
    try:
        complete = bool(parts.hostname and parts.port) and parts.scheme in ("tls", "tcp")
    except ValueError:
        complete = False
    if not complete:
        raise HostsError(f"{address} is no address of a scheduler.", "It looks like tls://192.168.1.10:8786.")
    if parts.scheme == "tcp" and not _is_this_machine(parts.hostname):
        raise HostsError(
            f"{address} is not encrypted: whoever reaches it could run anything on every host.",
            "Use tls:// and certificates; tcp:// is for this machine alone.",
        )
    if parts.scheme == "tls" and certificates is None:
        raise HostsError("An address with tls:// needs certificates.", "Name their folder with --certificates.")
    return address


def _is_this_machine(host):
    try:
        return ipaddress.ip_address(host).is_loopback
    except ValueError:
        return host == "localhost"


def security_of(certificates):
    """What dask is told of encryption: a Security, or None of this machine alone."""
    from distributed.security import Security

    if certificates is None:
        return None
    authority, certificate, key = (str(path) for path in certificates)
    ours = {"cert": certificate, "key": key}
    return Security(
        require_encryption=True,
        tls_ca_file=authority,
        **{f"tls_{role}_{what}": path for role in ("client", "worker", "scheduler") for what, path in ours.items()},
    )


def need_distributed():
    """Whether the extra is installed. Raises HostsError."""
    if importlib.util.find_spec("distributed") is None:
        raise HostsError("Working on several hosts needs the extra.", 'Install it: pip install "just-plane[hosts]".')


class HostsEngine:
    """Gives work to whatever machines stand at a scheduler.

    Parameters
    ----------
    address : str
    certificates : Certificates or None
    folder : Path                         That all machines see under this path: of the results.

    Raises
    ------
    HostsError
    """

    lost = (HostLostError, CancelledError)

    def __init__(self, address, certificates, folder):
        need_distributed()
        self._address = checked_address(address, certificates)
        self._certificates = certificates
        self._folder = Path(folder)
        self._client = None
        self._lock = threading.Lock()

    @property
    def workers(self):
        """How many pieces are done at a time: processes of all machines."""
        with suppress(*self.lost, HostsError):
            return min(max(len(self._met().scheduler_info(n_workers=-1)["workers"]), 1), MOST_SHARES)
        return 1

    def meet(self):
        """Look at every machine: the same program there, the same folder. Raises HostsError."""
        client = self._met()
        told = self._folder / f".tmp-meeting-{uuid.uuid4().hex}"
        self._folder.mkdir(parents=True, exist_ok=True)
        told.write_text(told.name)
        try:
            answers = client.run(look_around, str(told), on_error="return")
        finally:
            told.unlink(missing_ok=True)
        if not answers:
            raise HostsError("No host is at the scheduler.", "Start just-plane work on each of them.")
        here = versions()
        for host, answer in answers.items():
            if isinstance(answer, Exception):
                raise HostsError(f"The host {host} cannot do the work: {answer}.", "Install the same program there.")
            read, theirs = answer
            if read != told.name:
                raise HostsError(
                    f"The host {host} does not see {self._folder}.", "Mount the folder there under the same path."
                )
            others = [f"{name} {theirs[name]}, here {here[name]}" for name in TOGETHER if theirs[name] != here[name]]
            if others:
                raise HostsError(f"The host {host} has {'; '.join(others)}.", "Install the same versions everywhere.")
        return len(answers)

    def submit(self, function, *arguments):
        """Start a function of plain values; a Future. Raises one of ``lost`` where no scheduler answers."""
        answer: Future = Future()
        try:
            remote = self._met().submit(function, *arguments, pure=False, key=f"piece-{uuid.uuid4().hex}", retries=0)
        except HostsError as error:
            raise HostLostError(error.message) from error
        answer.set_running_or_notify_cancel()
        remote.add_done_callback(lambda done: _hand_over(done, answer))
        return answer

    def alive(self):
        """Whether the scheduler is still there: without it no future ever ends."""
        return self._client is not None and self._client.status == "running"

    def anew(self):
        """Let go of all that is out; the next call meets the scheduler again."""
        with self._lock:
            client, self._client = self._client, None
        if client is not None:
            with suppress(Exception):
                client.close(timeout=2)

    def close(self):
        """The same, for good."""
        self.anew()

    def _met(self):
        from distributed import Client

        with self._lock:
            if self._client is None or self._client.status != "running":
                try:
                    self._client = Client(
                        self._address,
                        security=security_of(self._certificates),
                        set_as_default=False,
                        timeout=CONNECT_S,
                    )
                except (OSError, TimeoutError, ValueError) as error:
                    raise HostsError(
                        f"No scheduler answers at {self._address}, or it does not know this certificate.",
                        "Start it, or look at address and certificates.",
                    ) from error
            return self._client


def _hand_over(done, answer):
    """From dask's future to a plain one; the first is dropped at once, or it would answer from memory later."""
    try:
        error = done.exception() if done.status == "error" else None
        if done.status == "finished":
            answer.set_result(done.result())
        elif error is not None and type(error).__module__.startswith("just_plane."):
            answer.set_exception(error)
        else:
            answer.set_exception(HostLostError(f"{done.status}: {error}"))
    except BaseException as trouble:  # dask's own cancelling is no Exception; nothing may end a thread in silence
        with suppress(Exception):
            answer.set_exception(HostLostError(str(trouble)))
    finally:
        with suppress(Exception):
            done.release()


def look_around(path):
    """On a host: what it reads of a file, and its versions: (str or None, dict)."""
    try:
        read = Path(path).read_text()
    except OSError:
        read = None
    return read, versions()


def versions():
    """Of the packages that must be alike: dict."""
    return {name: getattr(importlib.import_module(name), "__version__", "?") for name in TOGETHER}
