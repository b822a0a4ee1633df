"""Only this machine, only this page: Host, Origin, and what the page may load. On the network, only known devices."""

import secrets

from flask import current_app, g, request

from just_plane.web.errors import refuse

LOCAL_HOSTS = {"127.0.0.1", "localhost", "[::1]"}
LOCAL_ADDRESSES = {"127.0.0.1", "::1"}
COOKIE = "just-plane-device"
COOKIE_S = 400 * 24 * 3600
FOR_STRANGERS = ("/api/network/here", "/api/network/enter")
"""What a device may ask before it was let in; the page itself too, which holds nothing of anybody's work."""
LARGEST_BODY = 2_000_000
BODIES = ("application/json", "multipart/form-data", "application/octet-stream", "text/csv")


def policy(nonce):
    """Content security policy. Scripts only from here; styles from here, and those that the page's own style engine
    adds, which carry the nonce of this answer."""
    return (
        "default-src 'none'; script-src 'self'; "
        f"style-src 'self' 'nonce-{nonce}'; "
        "font-src 'self'; img-src 'self' data: blob:; connect-src 'self'; manifest-src 'self'; "
        "base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
    )


def register(app):
    """Guard every request and dress every response."""
    app.config["MAX_CONTENT_LENGTH"] = LARGEST_BODY
    app.before_request(_refuse_strangers)
    app.before_request(_refuse_other_kinds)
    app.after_request(_dress)


def nonce():
    """This response's nonce, made on first use."""
    if "nonce" not in g:
        g.nonce = secrets.token_urlsafe(16)
    return g.nonce


def _refuse_strangers():
    gate, host = current_app.config["JUST_PLANE_GATE"], _host()
    if host not in LOCAL_HOSTS and (gate is None or not gate.is_own(host)):
        own = "127.0.0.1 and localhost" if gate is None else "the names and addresses of its own machine"
        return refuse(403, "host.foreign", f"This server answers only to {own}.", "Use one of them.")
    if not is_this_machine() and not _is_known(gate):
        return refuse(
            401,
            "device.unknown",
            "This device was not let in, or was shown out.",
            "Ask for a code on the machine that runs the program, and enter it here.",
        )
    if request.method in ("GET", "HEAD", "OPTIONS"):
        return None
    origin = request.headers.get("Origin")
    site = request.headers.get("Sec-Fetch-Site", "same-origin")
    if (origin is not None and origin != f"{request.scheme}://{request.host}") or site not in ("same-origin", "none"):
        return refuse(403, "origin.foreign", "Another site may not change anything here.", "Use the page itself.")
    return None


def _host():
    host = request.host.lower()
    return host if host.endswith("]") else host.rsplit(":", 1)[0]


def is_this_machine():
    """Whether the one that asks is the machine that this program runs on."""
    if current_app.config["JUST_PLANE_GATE"] is None:
        return True
    return request.remote_addr in LOCAL_ADDRESSES and _host() in LOCAL_HOSTS


def _is_known(gate):
    """Whether a device of the network may have what it asks for; its name is noted."""
    device_id, _, secret = request.cookies.get(COOKIE, "").partition(".")
    devices = current_app.config["JUST_PLANE_STORE"].devices
    device = devices.known(device_id, secret) if secret else None
    if device is not None:
        g.device_name = device.name
        if gate.is_due(device_id):
            devices.seen(device_id)
        return True
    return not request.path.startswith("/api") or request.path in FOR_STRANGERS


def _refuse_other_kinds():
    """A body that is said to be something else than this server takes is not guessed at."""
    if request.method in ("POST", "PUT") and request.content_length and request.path.startswith("/api/"):
        kind = request.mimetype
        if not kind or kind in BODIES or kind.startswith("image/"):
            return None
        return refuse(
            415,
            "http.415",
            f"What was sent says that it is {kind or 'of no kind'}; this address takes JSON.",
            "Send it as application/json.",
        )
    return None


def _dress(response):
    response.headers["Content-Security-Policy"] = policy(nonce())
    response.headers["X-Content-Type-Options"] = "nosniff"
    response.headers["Referrer-Policy"] = "no-referrer"
    response.headers["Cross-Origin-Opener-Policy"] = "same-origin"
    response.headers["Cross-Origin-Resource-Policy"] = "same-origin"
    if response.mimetype in ("application/json", "application/problem+json", "text/html", "text/csv"):
        response.headers["Cache-Control"] = "no-store"
    return response
