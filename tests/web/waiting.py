"""Waiting for what a runner does."""

import time


def ended(client, address):
    """What is told of a job or a trial at an address once it is done, failed or stopped."""
    for _ in range(900):
        told = client.get(address).get_json()
        if told["state"] in ("done", "failed", "cancelled"):
            return told
        time.sleep(0.1)
    raise AssertionError(told)
