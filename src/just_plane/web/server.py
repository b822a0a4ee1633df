"""The production server: waitress on this machine only."""

import logging
import socket

import waitress

HOST = "127.0.0.1"
THREADS = 6


def listen(port):
    """A listening socket on ``port``; 0 takes any free one.

    Raises
    ------
    OSError   The port is taken.
    """
    listener = socket.create_server((HOST, port))
    return listener, f"http://{HOST}:{listener.getsockname()[1]}/"


def serve(app, listener):
    """Serve until stopped."""
    # A page that asks for several things at once is no cause for words in the terminal.
    logging.getLogger("waitress.queue").setLevel(logging.ERROR)
    runner = app.config["JUST_PLANE_RUNNER"]
    runner.start()
    server = waitress.create_server(app, sockets=[listener], threads=THREADS, ident=None)
    try:
        server.run()
    finally:
        runner.stop()
        app.config["JUST_PLANE_DRIVES"].stop()
        server.close()
