"""Devices on the network that were let in. Of a device's secret only the hash is kept."""

import hashlib
import hmac
import secrets
import uuid
from datetime import UTC, datetime
from typing import NamedTuple

from just_plane.store.connection import statement
from just_plane.store.errors import NotFoundError


class Device(NamedTuple):
    """A device that may come in."""

    device_id: str
    name: str
    secret_sha256: str
    let_in_at: str
    last_seen_at: str | None


class Devices:
    """The devices of one database."""

    def __init__(self, database):
        self.database = database

    def let_in(self, name):
        """A new device: (Device, its secret, told this once)."""
        device_id, secret = uuid.uuid4().hex, secrets.token_urlsafe(32)
        values = {"device_id": device_id, "name": name, "secret_sha256": _hash(secret), "now": _now()}
        with self.database.write() as connection:
            connection.execute(statement("device_insert"), values)
            return _read(connection, device_id), secret

    def known(self, device_id, secret):
        """The device that has this secret, or None: never let in, shown out, or another's secret."""
        with self.database.read() as connection:
            row = connection.execute(statement("device_by_id"), {"device_id": device_id}).fetchone()
        if row is None or not hmac.compare_digest(row["secret_sha256"], _hash(secret)):
            return None
        return Device(**dict(row))

    def seen(self, device_id):
        """It was here now."""
        with self.database.write() as connection:
            connection.execute(statement("device_seen"), {"device_id": device_id, "now": _now()})

    def list(self):
        """Devices that may come in, the last let in first: list of Device."""
        with self.database.read() as connection:
            return [Device(**dict(row)) for row in connection.execute(statement("devices_list"))]

    def show_out(self, device_id):
        """It may come in no longer. Raises NotFoundError."""
        with self.database.write() as connection:
            done = connection.execute(statement("device_show_out"), {"device_id": device_id, "now": _now()})
            if done.rowcount == 0:
                raise NotFoundError("There is no such device.", "It may have been shown out already.")


def _read(connection, device_id):
    return Device(**dict(connection.execute(statement("device_by_id"), {"device_id": device_id}).fetchone()))


def _hash(secret):
    return hashlib.sha256(secret.encode()).hexdigest()


def _now():
    return datetime.now(UTC).isoformat(timespec="milliseconds")
