"""The demo's server with one route more: it takes a body and only answers. Prints its address."""

import sys
from pathlib import Path

from flask import request

from just_plane.demo.catalogue import fill
from just_plane.store.folder import open_store
from just_plane.web.app import create_app
from just_plane.web.server import listen, serve


def main(folder):
    store = open_store(folder)
    fill(store)
    app = create_app(store, demo=True)

    @app.post("/only-answers")
    def only_answers():
        return {"bytes": len(request.get_data())}

    listener, address = listen(0)
    print(address, flush=True)
    serve(app, listener)


if __name__ == "__main__":
    main(Path(sys.argv[1]))
