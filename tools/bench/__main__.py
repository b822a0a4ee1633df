"""Benchmarks: medians and ratios, printed as a table and kept in the file given, above what is said there of them."""

import platform
import re
import subprocess
import sys
import tempfile
from pathlib import Path

import numpy as np
from answers import drag_against_nothing, long_list
from computing import contrast_against_quadrature, preview_of_a_frame, ruler_in_a_frame, search_of, through_focus_map
from page import drag_on_the_page, first_load_kb, frames_of_rocking
from starting import plan_against_numpy, server_up

import frames

SAID = "\n## "
"""From the first heading on the file is written by hand, and stays."""


def main(path):
    with tempfile.TemporaryDirectory() as data:
        server = subprocess.Popen(
            [sys.executable, Path(__file__).with_name("server.py"), data], stdout=subprocess.PIPE, text=True
        )
        try:
            address = re.search(r"http://\S+/", server.stdout.readline()).group()
            drags = drag_against_nothing(address)
            pages = drag_on_the_page(address)
            rocked = frames_of_rocking(address)
        finally:
            server.kill()
            server.wait()
    table = "\n".join(
        f"| {' | '.join(row)} |"
        for row in [
            ("what", "measured", "against", "aim"),
            ("---",) * 4,
            *over_http(drags),
            *on_the_page(pages),
            *rocking(*rocked),
            *started(),
            *computed(),
            *frames.rows(),
        ]
    )
    print(table)
    said = path.read_text(encoding="utf-8").partition(SAID)
    machine = f"{platform.machine()}, Python {platform.python_version()}, NumPy {np.__version__}"
    path.write_text(
        "# Benchmarks\n\nThe last run of `make bench`; every drag sends another shot each time. Ratios travel between "
        f"machines; times do not (this one: {machine}).\n\n{table}\n{said[1]}{said[2]}",
        encoding="utf-8",
    )


def over_http(drags):
    for name, (ours, least) in drags.items():
        yield f"drag over HTTP: {name}", ms(ours), f"{ours / least:.1f}x a POST of that size that only answers", "3x"
    first, next_time = long_list()
    yield "list of 5,000 shots, first page", ms(first), f"{ms(next_time)} the next time", "300 ms"


def on_the_page(pages):
    for name, (mark, figures, changes, drawn) in pages.items():
        yield f"pointer to its mark: {name}", ms(mark), "95th percentile, to the paint", "the same frame"
        yield f"pointer to changed number: {name}", ms(figures), f"95th percentile of {changes} changes", "50 ms"
        yield f"components drawn anew a move: {name}", f"{drawn:.0f}", "", "200"
    yield "first load, compressed", f"{first_load_kb():.0f} kB", "without fonts", "250 kB"


def rocking(a_second, age_s):
    yield (
        "practice, 640 x 427, in the browser",
        f"{a_second:.0f} pictures a second",
        f"{ms(age_s)} old when shown",
        "15",
    )


def started():
    yield "server up, from the shell", ms(server_up()), "", "1500 ms"
    plan, least = plan_against_numpy()
    yield "`just-plane plan` from the shell", ms(plan), f'{plan / least:.1f}x `python -c "import numpy"`', "2x"


def computed():
    ours, theirs = contrast_against_quadrature()
    yield "contrast, a point", f"{ours * 1e6:.2f} us", f"{theirs / ours:.0f}x faster than adaptive quadrature", "300x"
    yield "through-focus map, 200 x 400", ms(through_focus_map()), "", "10 ms"
    for pieces, aim in ((40, "150 ms"), (400, "1500 ms")):
        time_s, first_s, tried = search_of(pieces)
        yield f"search of {pieces} pieces of kit", ms(time_s), f"{tried} rows tried; the first {ms(first_s)}", aim
    yield "ruler in 2400 x 1600 pixels", ms(ruler_in_a_frame()), "", "400 ms"
    drawn, whole = preview_of_a_frame()
    yield "rendering 960 x 640", ms(drawn), f"{ms(whole)} with the made-up surface", "200 ms"


def ms(time_s):
    return f"{time_s * 1e3:.{1 if time_s < 0.02 else 0}f} ms"


if __name__ == "__main__":
    main(Path(sys.argv[1]))
