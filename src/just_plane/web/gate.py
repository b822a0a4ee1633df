"""The gate to the network: a one-time code, and who has come in by it."""

import hmac
import secrets
import socket
import threading
import time
from typing import NamedTuple

VALID_S = 120.0
TRIES = 5
NAMES_S = 10.0
"""For which the names of this machine are believed."""
SEEN_S = 60.0


class Code(NamedTuple):
    """A code that lets one device in."""

    digits: str
    ends_at: float
    """On the gate's clock, s."""


class Gate:
    """One code at a time, in memory only: a server that starts again has none."""

    def __init__(self, port, clock=time.monotonic, fingerprint=None):
        """
        Parameters
        ----------
        port : int                 That devices are answered on.
        clock : function           () -> s.
        fingerprint : str or None  Of the certificate; None: what goes over the network is not encrypted.
        """
        self.port, self.fingerprint = port, fingerprint
        self._clock = clock
        self._lock = threading.Lock()
        self._code: Code | None = None
        self._tries = 0
        self._names: frozenset = frozenset()
        self._named_at = -NAMES_S
        self._seen: dict = {}

    def is_own(self, host):
        """Whether a host is a name or address of this machine; they are looked up anew now and then: they change."""
        with self._lock:
            if host not in self._names and self._clock() - self._named_at >= NAMES_S:
                self._names, self._named_at = frozenset(name.lower() for name in own_names()), self._clock()
            return host in self._names

    def is_due(self, device_id):
        """Whether it is time to note that a device was here: once a minute is enough."""
        with self._lock:
            now = self._clock()
            if now - self._seen.get(device_id, -SEEN_S) < SEEN_S:
                return False
            self._seen[device_id] = now
            return True

    def new_code(self):
        """A fresh code; the one before it lets nobody in any more: Code."""
        with self._lock:
            self._code = Code(f"{secrets.randbelow(1_000_000):06d}", self._clock() + VALID_S)
            self._tries = TRIES
            return self._code

    def seconds_left(self):
        """Of the code there is; 0 without one."""
        with self._lock:
            return 0.0 if self._code is None else max(self._code.ends_at - self._clock(), 0.0)

    def opens(self, digits):
        """Whether these digits are the code. It opens once; after five wrong ones it is void."""
        with self._lock:
            if self._code is None or self._clock() >= self._code.ends_at:
                self._code = None
                return False
            right = hmac.compare_digest(self._code.digits, digits)
            self._tries -= 1
            if right or self._tries <= 0:
                self._code = None
            return right


def own_names():
    """Names and addresses under which this machine is reached on its network: list of str."""
    name = socket.gethostname()
    found = [address for address in _addresses(name) if not address.startswith("127.")]
    return list(dict.fromkeys([*found, name, f"{name.removesuffix('.local')}.local"]))


def _addresses(name):
    # The address that would be used toward another network; nothing is sent.
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.connect(("192.0.2.1", 9))
            yield probe.getsockname()[0]
        except OSError:
            pass
    try:
        for *_, address in socket.getaddrinfo(name, None, socket.AF_INET):
            yield address[0]
    except OSError:
        return
