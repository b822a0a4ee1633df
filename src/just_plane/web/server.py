"""The production server: waitress, on this machine only unless it is asked to answer on the network."""

import logging
import socket

import waitress

HOST, EVERYWHERE = "127.0.0.1", "0.0.0.0"
THREADS = 6


def listen(port, *, on_network=False):
    """A listening socket on ``port``; 0 takes any free one. Returns it, and the address on this machine.

    Raises
    ------
    OSError   The port is taken.
    """
    listener = socket.create_server((EVERYWHERE if on_network else HOST, port))
    return listener, f"http://{HOST}:{listener.getsockname()[1]}/"


def serve(app, listener, beside=None):
    """Serve until stopped.

    Parameters
    ----------
    app : OpenAPI
    listener : socket
    beside : object or None   Another server over the same application: ``start`` and ``stop``.
    """
    # A page that asks for several things at once is no cause for words in the terminal.
    logging.getLogger("waitress.queue").setLevel(logging.ERROR)
    runner = app.config["JUST_PLANE_RUNNER"]
    runner.start()
    if beside is not None:
        beside.start()
    server = waitress.create_server(app, sockets=[listener], threads=THREADS, ident=None)
    try:
        server.run()
    finally:
        if beside is not None:
            beside.stop()
        runner.stop()
        app.config["JUST_PLANE_DRIVES"].stop()
        server.close()
