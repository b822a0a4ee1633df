"""Answers over HTTP: drags against a POST that only answers, and the first page of a long list."""

import http.client
import statistics
import tempfile
import time

from hands import drags
from timing import time_of

from just_plane.contract.shot_file import write_shot
from just_plane.demo.catalogue import demo_shots
from just_plane.store.folder import open_store
from just_plane.web.app import create_app

ROUNDS = 200


def drag_against_nothing(address):
    """Medians (s) of each drag's answer and of a POST of the same body that only answers: {name: (ours, least)}."""
    connection = http.client.HTTPConnection(address.removeprefix("http://").strip("/"))

    def ask(path, body):
        start = time.perf_counter()
        connection.request("POST", path, body, {"Content-Type": "application/json"})
        response = connection.getresponse()
        response.read()
        assert response.status == 200, path
        return time.perf_counter() - start

    answer = {}
    for name, next_shot in drags().items():
        turns = []
        for _ in range(ROUNDS):
            body = write_shot(next_shot()).encode()
            turns.append((ask("/api/plan", body), ask("/only-answers", body)))
        answer[name] = tuple(statistics.median(column) for column in zip(*turns, strict=True))
    return answer


def long_list(many=5000):
    """Time (s) to the first page of a list of that many shots, the first time and the next."""
    with tempfile.TemporaryDirectory() as folder:
        store = open_store(folder)
        shots = demo_shots()
        with store.shots.database.write() as connection:
            for index in range(many):
                shot = shots[index % len(shots)].model_copy(update={"name": f"shot {index}"})
                store.shots._add(connection, shot, f"{index:012x}")
        client = create_app(store).test_client()
        return time_of(lambda: client.get("/api/shots")), time_of(lambda: client.get("/api/shots"))
