"""Devices on the network: how one is let in, and which there are."""

from typing import Annotated

from pydantic import Field

from just_plane.contract.base import Answer, Model


class Here(Answer):
    """Who asks, and whether the program answers on the network."""

    on_network: bool
    this_machine: Annotated[bool, Field(description="The one that asks is the machine that the program runs on.")]
    name: Annotated[str | None, Field(description="Of the device that asks, once it was let in.")]


class Way(Answer):
    """How safe the way between the machine and a device is."""

    encrypted: bool
    fingerprint: Annotated[str | None, Field(description="SHA-256 of the certificate; null: there is none.")]


class CodeAnswer(Answer):
    """A code for one device."""

    digits: Annotated[str, Field(description="Six of them.")]
    seconds: Annotated[float, Field(description="For which it is valid.")]
    addresses: Annotated[list[str], Field(description="To open on the device, the likeliest first.")]
    way: Way
    picture: Annotated[str, Field(description="QR code of the first address with the code, as a data URL.")]


class EnterAsked(Model):
    """What a device sends to come in."""

    digits: Annotated[str, Field(title="Code", pattern="^[0-9]{6}$")]
    name: Annotated[str, Field(title="Name of this device", min_length=1, max_length=60)]


class DeviceAnswer(Answer):
    """A device that may come in."""

    device_id: str
    name: str
    let_in_at: str
    last_seen_at: str | None


class DeviceList(Answer):
    """Devices that may come in, the last let in first."""

    devices: list[DeviceAnswer]
    way: Way


class DevicePath(Model):
    """A device in the address."""

    device_id: Annotated[str, Field(pattern="^[0-9a-f]{32}$")]
