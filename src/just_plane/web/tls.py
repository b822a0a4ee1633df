"""The encrypted way in for devices of the network: a certificate that the program makes itself, and its server."""

import datetime
import hashlib
import ipaddress
import logging
import os
import threading
from pathlib import Path
from typing import NamedTuple

from cheroot.ssl.builtin import BuiltinSSLAdapter
from cheroot.wsgi import Server
from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import NameOID

FOLDER = "network"
DAYS = 397
"""Longest that browsers take."""
RENEWED_DAYS = 14
"""Before its end a new one is made."""
THREADS = 6


class Certificate(NamedTuple):
    """A certificate and its key, each in a file."""

    certificate: Path
    key: Path
    fingerprint: str
    """SHA-256 of it, in pairs: what a browser shows too."""


def own_certificate(folder, names, now=None):
    """The machine's own certificate, made or made anew where it ends soon or lacks one of its names.

    Parameters
    ----------
    folder : Path          Of the data.
    names : list of str    Under which the machine is reached.
    now : datetime or None Aware; None: now.

    Returns
    -------
    Certificate

    Raises
    ------
    OSError                It cannot be kept.
    """
    now = now or datetime.datetime.now(datetime.UTC)
    within = Path(folder) / FOLDER
    certificate, key = within / "certificate.pem", within / "key.pem"
    made = _read(certificate) if key.is_file() else None
    if made is None or not _serves(made, names, now):
        within.mkdir(parents=True, exist_ok=True)
        made = _make(certificate, key, names, now)
    digest = hashlib.sha256(made.public_bytes(serialization.Encoding.DER)).hexdigest().upper()
    return Certificate(certificate, key, ":".join(digest[at : at + 2] for at in range(0, len(digest), 2)))


def _read(path):
    try:
        return x509.load_pem_x509_certificate(path.read_bytes())
    except (OSError, ValueError):
        return None


def _serves(made, names, now):
    kept = made.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    ends = made.not_valid_after_utc - datetime.timedelta(days=RENEWED_DAYS)
    return made.not_valid_before_utc <= now < ends and all(_name(name) in kept for name in names)


def _name(name):
    try:
        return x509.IPAddress(ipaddress.ip_address(name))
    except ValueError:
        return x509.DNSName(name)


def _make(certificate, key, names, now):
    private = ec.generate_private_key(ec.SECP256R1())
    subject = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, "Just Plane on this machine")])
    made = (
        x509.CertificateBuilder()
        .subject_name(subject)
        .issuer_name(subject)
        .public_key(private.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - datetime.timedelta(hours=1))
        .not_valid_after(now + datetime.timedelta(days=DAYS))
        .add_extension(x509.SubjectAlternativeName([_name(name) for name in names]), critical=False)
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .sign(private, hashes.SHA256())
    )
    secret = private.private_bytes(
        serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption()
    )
    _written(key, secret, 0o600)
    _written(certificate, made.public_bytes(serialization.Encoding.PEM), 0o644)
    return made


def _written(path, content, mode):
    """Whole or not at all, and never readable by others on the way."""
    making = path.with_suffix(".part")
    with os.fdopen(os.open(making, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, mode), "wb") as file:
        file.write(content)
    os.replace(making, path)


class _Quiet(Server):
    """Says nothing of devices that hang up in the middle, or do not like the certificate."""

    def error_log(self, msg="", level=logging.INFO, traceback=False):
        """To the log of the program, for who asks for it."""
        logging.getLogger("just_plane.web.tls").debug(msg)


class SecureServer:
    """Answers devices of the network, encrypted; beside the plain server, which then answers this machine only."""

    def __init__(self, app, everywhere, port, certificate):
        self._server = _Quiet((everywhere, port), app, numthreads=THREADS, server_name="")
        self._server.ssl_adapter = BuiltinSSLAdapter(str(certificate.certificate), str(certificate.key))
        self._server.prepare()
        self._thread = threading.Thread(target=self._server.serve, name="secure", daemon=True)

    @property
    def port(self):
        """That it listens on."""
        return self._server.bind_addr[1]

    def start(self):
        """Answer from now on."""
        self._thread.start()

    def stop(self):
        """Answer no more."""
        self._server.stop()
