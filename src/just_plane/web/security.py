"""Only this machine, only this page: Host, Origin, and what the page may load."""

import secrets

from flask import g, request

from just_plane.web.errors import refuse

LOCAL_HOSTS = {"127.0.0.1", "localhost", "[::1]"}
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
    host = request.host.rsplit(":", 1)[0] if not request.host.endswith("]") else request.host
    if host not in LOCAL_HOSTS:
        return refuse(403, "host.foreign", "This server answers only to 127.0.0.1 and localhost.", "Use one of them.")
    if request.method in ("GET", "HEAD", "OPTIONS"):
        return None
    origin = request.headers.get("Origin")
    site = request.headers.get("Sec-Fetch-Site", "same-origin")
    if (origin is not None and origin != f"{request.scheme}://{request.host}") or site not in ("same-origin", "none"):
        return refuse(403, "origin.foreign", "Another site may not change anything here.", "Use the page itself.")
    return None


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
