"""``just-plane meet`` and ``just-plane work``: a scheduler, and the hosts that do a studio's work."""

import os
import sys
from pathlib import Path

SETTINGS = {
    "DASK_DISTRIBUTED__WORKER__PROFILE__ENABLED": "False",
    "DASK_DISTRIBUTED__COMM__REQUIRE_ENCRYPTION": "True",
    "DASK_DISTRIBUTED__COMM__TIMEOUTS__TCP": "15s",
    "DASK_DISTRIBUTED__SCHEDULER__WORKER_TTL": "60s",
    # Memory that is let go is taken again with the next frame: giving it back each time costs a quarter of the work.
    "DASK_DISTRIBUTED__NANNY__PRE_SPAWN_ENVIRON": (
        '{"MALLOC_TRIM_THRESHOLD_": 268435456, "MALLOC_MMAP_THRESHOLD_": 33554432}'
    ),
}
PORT = 8786


def add_commands(commands):
    """Add both to a parser's sub-commands.

    Parameters
    ----------
    commands : object   As ``ArgumentParser.add_subparsers`` gives it.
    """
    meet = commands.add_parser(
        "meet",
        help="be the place where a studio's hosts meet",
        description="Run the scheduler that server and hosts meet at. It keeps nothing; start it again when it ends.",
    )
    meet.add_argument("--host", metavar="ADDRESS", required=True, help="this machine's address in the studio's network")
    meet.add_argument("--port", type=int, default=PORT, help=f"port to listen on ({PORT})")
    _certificates(meet)
    meet.set_defaults(run=_meet)
    work = commands.add_parser(
        "work",
        help="do the work of a studio's server on this host",
        description="Run processes that do pieces of work, until stopped. The studio's folder must be seen here too.",
    )
    work.add_argument("--hosts", metavar="tls://ADDRESS:PORT", required=True, help="where the hosts meet")
    work.add_argument("--processes", metavar="N", type=int, default=os.cpu_count() or 1, help="at a time (all cores)")
    _certificates(work)
    work.set_defaults(run=_work)


def _certificates(parser):
    parser.add_argument(
        "--certificates", metavar="FOLDER", type=Path, help="with authority.pem, certificate.pem and key.pem"
    )


def _meet(options):
    return _guarded(lambda certificates: _scheduler(options, certificates), options)


def _work(options):
    return _guarded(lambda certificates: _worker(options, certificates), options)


def _guarded(arguments_of, options):
    """Become dask's own program: it then ends, and is started again, as the machine's service says."""
    from just_plane.jobs.hosts import HostsError, certificates_in, need_distributed

    try:
        need_distributed()
        certificates = certificates_in(options.certificates)
        arguments = arguments_of(certificates)
    except HostsError as error:
        print(f"just-plane: {error.message} {error.remedy}", file=sys.stderr)
        return 2
    settings = SETTINGS | ({} if certificates else {"DASK_DISTRIBUTED__COMM__REQUIRE_ENCRYPTION": "False"})
    os.environ.update({name: value for name, value in settings.items() if name not in os.environ})
    return os.execv(sys.executable, [sys.executable, "-m", *arguments])


def _tls(certificates):
    if certificates is None:
        return []
    authority, certificate, key = (str(path) for path in certificates)
    return ["--tls-ca-file", authority, "--tls-cert", certificate, "--tls-key", key]


def _scheduler(options, certificates):
    from just_plane.jobs.hosts import checked_address

    way = "tls" if certificates else "tcp"
    checked_address(f"{way}://{options.host}:{options.port}", certificates)
    place = ["--host", options.host, "--port", str(options.port), "--protocol", way, "--no-dashboard", "--no-show"]
    return ["distributed.cli.dask_scheduler", *place, *_tls(certificates)]


def _worker(options, certificates):
    from just_plane.jobs.hosts import checked_address

    address = checked_address(options.hosts, certificates)
    size = ["--nworkers", str(max(options.processes, 1)), "--nthreads", "1", "--memory-limit", "0", "--no-dashboard"]
    return ["distributed.cli.dask_worker", address, *size, *_tls(certificates)]
