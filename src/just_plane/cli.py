"""The command line: ``just-plane plan``, ``check``, ``merge``, ``serve``, ``demo`` and the rest."""

import argparse
import sys
from pathlib import Path

from just_plane import __version__
from just_plane.contract.json_file import FileError
from just_plane.contract.shot_file import LARGEST_BYTES, read_shot
from just_plane.drive.commands import add_commands as add_run_command
from just_plane.frames.commands import add_commands as add_frames_commands
from just_plane.frames.trial_commands import add_commands as add_trial_command
from just_plane.jobs.host_commands import add_commands as add_host_commands
from just_plane.planning.plan import plan_shot
from just_plane.store.copies import copy_to, daily_copy, restore
from just_plane.store.errors import DiskError, StoreError
from just_plane.store.folder import FILE, demo_folder, open_store, own_folder

DEFAULT_PORT = 8765


def main(arguments=None):
    """Entry point; returns the exit status: 0 done, 1 refused, 2 bad usage."""
    options = _parser().parse_args(arguments)
    try:
        return options.run(options)
    except FileError as error:
        where = f" at {error.field}" if error.field else ""
        print(f"just-plane: {error.message}{where} {error.remedy}", file=sys.stderr)
    except StoreError as error:
        print(f"just-plane: {error.message} {error.remedy}", file=sys.stderr)
    return 1


def _parser():
    parser = argparse.ArgumentParser(
        prog="just-plane",
        description="Plans close-up photographs: size, effective aperture, depth of field, focus stacks.",
    )
    parser.add_argument("--version", action="version", version=f"just-plane {__version__}")
    commands = parser.add_subparsers(title="commands", required=True, metavar="COMMAND")

    plan = commands.add_parser(
        "plan",
        help="print the plan of a shot file as JSON",
        description="Read a shot file and print its plan as JSON. Exit status 1 when the file is refused.",
    )
    plan.add_argument("shot", metavar="SHOT.json", help="a shot file; - reads standard input")
    plan.add_argument("--units", choices=("mm", "in"), default="mm", help="how sentences speak of lengths (mm)")
    plan.set_defaults(run=_plan)

    ruler = commands.add_parser(
        "ruler",
        help="make a practice photograph of a ruler",
        description="Make a JPEG of a ruler as a sensor would see it at a known size, to practise measuring on.",
    )
    ruler.add_argument("picture", metavar="RULER.jpg", type=Path, help="file to write")
    ruler.add_argument("--size", metavar="M", type=_positive, default=0.5, help="size on the sensor (0.5)")
    ruler.add_argument("--sensor-width", metavar="MM", type=_positive, default=36.0, help="of the sensor (36)")
    ruler.add_argument("--pixels", metavar="N", type=int, default=3000, help="pixels across, 300 to 9000 (3000)")
    ruler.add_argument("--tick", metavar="MM", type=_positive, default=1.0, help="between ticks (1)")
    ruler.add_argument("--turn", metavar="DEG", type=float, default=4.0, help="turned by, degrees (4)")
    ruler.add_argument("--blur", metavar="PX", type=_positive, default=1.2, help="blur, pixels (1.2)")
    ruler.add_argument("--noise", metavar="SHARE", type=float, default=0.02, help="noise, of full scale (0.02)")
    ruler.set_defaults(run=_ruler)

    serve = commands.add_parser(
        "serve",
        help="start the server on your own shots",
        description="Serve the page on this machine, on your own data folder or the one given.",
    )
    _serving(serve)
    serve.add_argument("--data", metavar="DIR", type=Path, help=f"data folder (default: {own_folder()})")
    _on_network(serve)
    serve.set_defaults(run=lambda options: _serve(options, options.data or own_folder(), demo=False))

    backup = commands.add_parser(
        "backup",
        help="copy your data file, sound whatever is being written",
        description="Write one file that holds all shots and the kit, with their history; the server may be running.",
    )
    backup.add_argument("copy", metavar="COPY.sqlite3", type=Path, help="file to write")
    backup.add_argument("--data", metavar="DIR", type=Path, help=f"data folder (default: {own_folder()})")
    backup.set_defaults(run=_backup)

    restore = commands.add_parser(
        "restore",
        help="put a copy back in the place of your data file",
        description="The data file there is now is set aside, not deleted. Stop the server first.",
    )
    restore.add_argument("copy", metavar="COPY.sqlite3", type=Path, help="a copy that backup made, or a daily one")
    restore.add_argument("--data", metavar="DIR", type=Path, help=f"data folder (default: {own_folder()})")
    restore.set_defaults(run=_restore)

    add_frames_commands(commands)
    add_run_command(commands)
    add_trial_command(commands)
    add_host_commands(commands)
    demo = commands.add_parser(
        "demo",
        help="start the server on the demo data",
        description="Serve the page on a made-up catalogue, in a folder of its own that never touches real work.",
    )
    _serving(demo)
    demo.add_argument("--data", metavar="DIR", type=Path, help=f"demo folder (default: {demo_folder()})")
    _on_network(demo)
    demo.set_defaults(run=lambda options: _serve(options, options.data or demo_folder(), demo=True))
    return parser


def _serving(parser):
    parser.add_argument(
        "--port", type=int, default=None, help=f"port to listen on; 0 takes any free one (default: {DEFAULT_PORT})"
    )


def _on_network(parser):
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


def _plan(options):
    if options.shot == "-":
        content = sys.stdin.buffer.read(LARGEST_BYTES + 1)
    else:
        try:
            with open(options.shot, "rb") as file:
                content = file.read(LARGEST_BYTES + 1)
        except OSError as error:
            print(f"just-plane: {options.shot}: {error.strerror}", file=sys.stderr)
            return 1
    print(plan_shot(read_shot(content), options.units).model_dump_json(indent=2))
    return 0


def _positive(text):
    value = float(text)
    if not 0 < value < 1e6:
        raise argparse.ArgumentTypeError(f"must be more than 0 and less than a million; got {text}")
    return value


def _ruler(options):
    # Imported here so that `plan` starts without the picture library.
    import math

    import numpy as np

    from just_plane.core.frames.ruler_picture import ruler_picture
    from just_plane.pictures.writing import jpeg

    if not 300 <= options.pixels <= 9000 or not 0 <= options.noise <= 0.5:
        print("just-plane: --pixels must be from 300 to 9000, --noise from 0 to 0.5.", file=sys.stderr)
        return 1
    spacing = options.tick * options.size / options.sensor_width * options.pixels
    if not 3 <= spacing <= options.pixels / 8:
        print(
            f"just-plane: ticks would lie {spacing:.3g} pixels apart; 3 to {options.pixels // 8} can be told apart. "
            "Choose another --tick.",
            file=sys.stderr,
        )
        return 1
    picture = ruler_picture(
        options.pixels,
        options.pixels * 2 // 3,
        spacing,
        angle=math.radians(options.turn),
        offset=0.3,
        blur=options.blur,
        noise=options.noise,
        uneven=0.25,
        generator=np.random.default_rng(1),
    )
    try:
        options.picture.write_bytes(jpeg(picture))
    except OSError as error:
        print(f"just-plane: {options.picture}: {error.strerror}", file=sys.stderr)
        return 1
    print(f"{options.picture}: {options.size:g}x, {options.tick:g} mm from tick to tick, {spacing:.4f} pixels")
    return 0


def _backup(options):
    database = (options.data or own_folder()) / FILE
    if not database.exists():
        print(f"just-plane: there is no data file {database}. Choose the folder with --data.", file=sys.stderr)
        return 1
    copy_to(database, options.copy)
    print(f"{options.copy}: all shots and the kit of {database.parent}")
    return 0


def _restore(options):
    folder = options.data or own_folder()
    folder.mkdir(parents=True, exist_ok=True)
    away = restore(folder / FILE, options.copy)
    print(f"{folder / FILE} is {options.copy} now" + (f"; what was there is {away.name}" if away else ""))
    return 0


def _serve(options, folder, *, demo):
    if options.tls and not options.on_network:
        print("just-plane: --tls encrypts what goes over the network: add --on-network.", file=sys.stderr)
        return 2
    if options.certificates is not None and options.hosts is None:
        print("just-plane: --certificates are for hosts: name where they meet with --hosts.", file=sys.stderr)
        return 2
    # Imported here so that `plan` starts without the web's imports.
    from just_plane.demo.catalogue import fill
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


if __name__ == "__main__":
    sys.exit(main())
