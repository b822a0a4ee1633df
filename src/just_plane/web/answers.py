"""How answers leave the server."""

from flask import Response, current_app


def answer(model, status=200):
    """A contract model as a JSON response, serialised once, by its own serialiser."""
    return Response(model.model_dump_json(), status, content_type="application/json")


def download(text, name, mimetype):
    """Text as a file to save; the name is reduced to letters, digits and hyphens."""
    head, _, ending = name.rpartition(".")
    safe = "-".join("".join(char if char.isalnum() and char.isascii() else " " for char in head).split()) or "shot"
    return Response(
        text,
        content_type=f"{mimetype}; charset=utf-8",
        headers={"Content-Disposition": f'attachment; filename="{safe}.{ending}"'},
    )


def store():
    """The store that this application was made over."""
    return current_app.config["JUST_PLANE_STORE"]
