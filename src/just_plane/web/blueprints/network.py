"""Letting devices of the network in, and showing them out."""

import segno
from flask import current_app, g, request
from flask_openapi3 import Tag

from just_plane.contract.http import Problem
from just_plane.contract.network import CodeAnswer, DeviceAnswer, DeviceList, DevicePath, EnterAsked, Here, Way
from just_plane.web.answers import answer, store
from just_plane.web.errors import refuse
from just_plane.web.gate import own_names
from just_plane.web.late import LateBlueprint
from just_plane.web.security import COOKIE, COOKIE_S, is_this_machine

api = LateBlueprint(
    "network", __name__, url_prefix="/api/network", abp_tags=[Tag(name="network")], abp_responses={403: Problem}
)


@api.get("/here", responses={200: Here}, operation_id="here")
def here():
    """Who asks."""
    return answer(Here(on_network=gate() is not None, this_machine=is_this_machine(), name=g.get("device_name")))


@api.post("/code", responses={200: CodeAnswer}, operation_id="newCode")
def new_code():
    """A code for one device; only on the machine itself."""
    if refused := _only_here():
        return refused
    code = gate().new_code()
    scheme = "http" if gate().fingerprint is None else "https"
    addresses = [f"{scheme}://{name}:{gate().port}/" for name in own_names()]
    picture = segno.make(f"{addresses[0]}enter#{code.digits}", error="m")
    return answer(
        CodeAnswer(
            digits=code.digits,
            seconds=gate().seconds_left(),
            addresses=addresses,
            way=_way(),
            picture=picture.svg_data_uri(scale=6, border=3, dark="#000", light="#fff"),
        )
    )


@api.post("/enter", responses={200: Here}, operation_id="enter")
def enter(body: EnterAsked):
    """Come in with the code."""
    if gate() is None:
        return _closed()
    if not gate().opens(body.digits):
        return refuse(
            403,
            "code.wrong",
            "That is not the code, or it is no longer valid.",
            "Ask for a new one on the machine itself: it is valid for two minutes.",
            "/digits",
        )
    device, secret = store().devices.let_in(body.name)
    response = answer(Here(on_network=True, this_machine=is_this_machine(), name=device.name))
    response.set_cookie(
        COOKIE,
        f"{device.device_id}.{secret}",
        max_age=COOKIE_S,
        httponly=True,
        samesite="Strict",
        secure=request.is_secure,
        path="/",
    )
    return response


@api.get("/devices", responses={200: DeviceList}, operation_id="devices")
def devices():
    """Devices that may come in; only on the machine itself."""
    if refused := _only_here():
        return refused
    found = [
        DeviceAnswer(
            device_id=device.device_id,
            name=device.name,
            let_in_at=device.let_in_at,
            last_seen_at=device.last_seen_at,
        )
        for device in store().devices.list()
    ]
    return answer(DeviceList(devices=found, way=_way()))


@api.delete("/devices/<device_id>", responses={200: DeviceList, 404: Problem}, operation_id="showOut")
def show_out(path: DevicePath):
    """A device may come in no longer; only on the machine itself."""
    if refused := _only_here():
        return refused
    store().devices.show_out(path.device_id)
    return devices()


def gate():
    """The gate of this application; None while it answers on this machine only."""
    return current_app.config["JUST_PLANE_GATE"]


def _way():
    fingerprint = gate().fingerprint
    return Way(encrypted=fingerprint is not None, fingerprint=fingerprint)


def _only_here():
    if gate() is None:
        return _closed()
    if not is_this_machine():
        return refuse(403, "network.elsewhere", "That is done on the machine itself.", "Go there.")
    return None


def _closed():
    return refuse(
        403,
        "network.closed",
        "This program answers on its own machine only.",
        "Start it with: just-plane serve --on-network",
    )
