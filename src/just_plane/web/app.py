"""The Flask application factory."""

from flask_openapi3 import Info, OpenAPI

from just_plane import __version__
from just_plane.contract.http import Problem
from just_plane.drive.drives import Drives
from just_plane.drive.live import LiveViews
from just_plane.frames.as_they_come import Watchings
from just_plane.jobs.embedded import EmbeddedEngine
from just_plane.jobs.runner import Runner
from just_plane.practice.show import Shown
from just_plane.web import errors, security
from just_plane.web.blueprints import (
    about,
    brought,
    checks,
    kit,
    log,
    looking,
    network,
    page,
    pictures,
    plans,
    practice,
    ruler,
    runs,
    shots,
    trials,
)
from just_plane.web.description import describe

BLUEPRINTS = (
    about.api,
    plans.api,
    shots.api,
    kit.api,
    ruler.api,
    pictures.api,
    checks.api,
    looking.api,
    runs.api,
    trials.api,
    log.api,
    practice.api,
    brought.api,
    network.api,
)


def create_app(store, *, demo=False, gate=None, engine=None):
    """The application over an open store.

    Parameters
    ----------
    store : store.folder.Store
    demo : bool                  Said to the page, so that no one takes the demo for real work.
    gate : Gate or None          By which devices of the network come in; None: only this machine is answered.

    engine : object or None      That does long work; None: processes of this machine.

    Returns
    -------
    OpenAPI                      A WSGI application.
    """
    app = OpenAPI(
        "just_plane",
        info=Info(title="Just Plane", version=__version__, description="Plans of close-up photographs."),
        doc_ui=False,
        responses={422: Problem},
        validation_error_status=422,
        validation_error_callback=errors.on_invalid,
        security_schemes={},
        static_folder=None,
    )
    app.config["JUST_PLANE_STORE"] = store
    app.config["JUST_PLANE_DEMO"] = demo
    app.config["JUST_PLANE_GATE"] = gate
    app.config["JUST_PLANE_RUNNER"] = Runner(store.jobs, engine or EmbeddedEngine()) if store is not None else None
    app.config["JUST_PLANE_DRIVES"] = Drives(store.runs, store.jobs.folder.parent) if store is not None else None
    app.config["JUST_PLANE_SHOWN"] = Shown()
    app.config["JUST_PLANE_LIVE"] = LiveViews()
    app.config["JUST_PLANE_WATCHINGS"] = Watchings()
    errors.register(app)
    security.register(app)
    for blueprint in BLUEPRINTS:
        app.register_api(blueprint)
    app.register_blueprint(page.blueprint)
    app.add_url_rule("/api/openapi.json", "openapi_document", lambda: document(app))
    return app


def document(app):
    """The OpenAPI document of an application, its schemas made now: dict."""
    for blueprint in BLUEPRINTS:
        blueprint.tell(app)
    return describe(app.api_doc)
