"""``just-plane serve`` and ``just-plane demo``: the server, on one's own shots or on the made-up catalogue."""

import sys
from pathlib import Path

from just_plane.store.places import FILE, demo_folder, own_folder

DEFAULT_PORT = 8765


def add_commands(commands):
    """Add both to a parser's sub-commands.

    Parameters
    ----------
    commands : object   As ``ArgumentParser.add_subparsers`` gives it.
    """
    serve = commands.add_parser(
        "serve",
        help="start the server on your own shots",
        description="Serve the page on this machine, on your own data folder or the one given.",
    )
    _options(serve, own_folder(), demo=False)
    demo = commands.add_parser(
        "demo",
        help="start the server on the demo data",
        description="Serve the page on a made-up catalogue, in a folder of its own that never touches real work.",
    )
    _options(demo, demo_folder(), demo=True)


def _options(parser, folder, *, demo):
    parser.add_argument(
        "--port", type=int, default=None, help=f"port to listen on; 0 takes any free one (default: {DEFAULT_PORT})"
    )
    parser.add_argument("--data", metavar="DIR", type=Path, default=folder, help="folder of the data (%(default)s)")
    parser.add_argument(
        "--on-network",
        action="store_true",
        help="answer tablets and other machines of your network too, each let in by a code",
    )
    parser.add_argument(
        "--tls", action="store_true", help="with --on-network: encrypt it, by a certificate that the program makes"
    )
    parser.add_argument(
        "--hosts", metavar="tls://ADDRESS:PORT", help="give long work to the hosts that meet there (docs/hosts.md)"
    )
    parser.add_argument(
        "--certificates", metavar="FOLDER", type=Path, help="with --hosts: authority.pem, certificate.pem, key.pem"
    )
    parser.set_defaults(run=lambda options: _serve(options, options.data, demo=demo))


def _serve(options, folder, *, demo):
    if options.tls and not options.on_network:
        print("just-plane: --tls encrypts what goes over the network: add --on-network.", file=sys.stderr)
        return 2
    if options.certificates is not None and options.hosts is None:
        print("just-plane: --certificates are for hosts: name where they meet with --hosts.", file=sys.stderr)
        return 2
    from just_plane.demo.catalogue import fill
    from just_plane.store.copies import daily_copy
    from just_plane.store.folder import open_store
    from just_plane.web.server import listen

    store = open_store(folder)
    if demo:
        fill(store)
    else:
        daily_copy(folder / FILE)
    engine = _engine(options, store)
    if engine == "refused":
        return 1
    plain = options.on_network and not options.tls
    try:
        port = DEFAULT_PORT if options.port is None else options.port
        listener, address = listen(port, on_network=plain)
    except OSError:
        if options.port is not None:
            print(f"just-plane: port {options.port} is taken. Choose another with --port.", file=sys.stderr)
            return 1
        listener, address = listen(0, on_network=plain)
    except OverflowError:
        print("just-plane: a port is a number from 0 to 65535.", file=sys.stderr)
        return 1
    print(f"Just Plane {'demo ' if demo else ''}is at {address}  (data in {folder}; stop with Ctrl-C)", flush=True)
    try:
        _answer(store, folder, listener, address, options, demo=demo, engine=engine)
    except KeyboardInterrupt:
        print()
    return 0


def _engine(options, store):
    """Who does long work: None for this machine's own processes."""
    if options.hosts is None:
        return None
    from just_plane.jobs.hosts import HostsEngine, HostsError, certificates_in

    try:
        engine = HostsEngine(options.hosts, certificates_in(options.certificates), store.jobs.folder)
        count = engine.meet()
    except HostsError as error:
        print(f"just-plane: {error.message} {error.remedy}", file=sys.stderr)
        return "refused"
    print(f"Long work is done by {count} {'process' if count == 1 else 'processes'} at {options.hosts}", flush=True)
    return engine


def _answer(store, folder, listener, address, options, *, demo, engine):
    """Answer until stopped: this machine, and on the network those that were let in."""
    from just_plane.web.app import create_app
    from just_plane.web.gate import Gate, own_names
    from just_plane.web.server import EVERYWHERE, serve

    if not options.on_network:
        return serve(create_app(store, demo=demo, engine=engine), listener)
    port = listener.getsockname()[1]
    if not options.tls:
        _say_on_network(address, "is not encrypted: use it in a network that you trust")
        return serve(create_app(store, demo=demo, gate=Gate(port), engine=engine), listener)
    from just_plane.store.errors import DiskError
    from just_plane.web.tls import SecureServer, own_certificate

    try:
        certificate = own_certificate(folder, own_names())
    except OSError as error:
        raise DiskError(
            f"The certificate cannot be kept in {folder}: {error.strerror}.", "Make room there, or leave out --tls."
        ) from error
    gate = Gate(0, fingerprint=certificate.fingerprint)
    app = create_app(store, demo=demo, gate=gate, engine=engine)
    try:
        beside = SecureServer(app, EVERYWHERE, port + 1, certificate)
    except OSError:
        beside = SecureServer(app, EVERYWHERE, 0, certificate)
    gate.port = beside.port
    _say_on_network(address, "is encrypted; a device warns once, since only this machine vouches for itself")
    return serve(app, listener, beside)


def _say_on_network(address, way):
    print(
        f"On your network it answers too: let a device in at {address}devices\n"
        f"What goes between it and a device {way}.",
        flush=True,
    )
