"""What all processes together hold after many edits of many fittings, every fifth followed by its whole search."""

from __future__ import annotations

from collections.abc import Callable
from uuid import uuid4

from oblatus.drill.served import Served
from oblatus.drill.tablet import Tablet
from oblatus.usecases.seed import DEMO_EMAIL, DEMO_PASSWORD

LOOKS = 10
WHOLE_EVERY = 5


def measure_memory(edits: int, say: Callable[[str], None]) -> dict[str, float]:
    """Memory [MB] at first, at last and at most, over so many edits of attack and lean in turn over the fittings."""
    served = Served.start()
    try:
        tablet = Tablet(served.address, DEMO_EMAIL, DEMO_PASSWORD)
        tablet.sign_in()
        fittings = [f"/api/fittings/{line['id']}" for line in tablet.insist("GET", "/api/fittings").body["fittings"]]
        held = []
        for n in range(edits):
            if n % max(edits // LOOKS, 1) == 0:
                held.append(served.memory_mb())
                say(f"{n} of {edits} edits: {held[-1]:.0f} MB")
            path = fittings[n % len(fittings)]
            edit_habit(tablet, path, n)
            if (n + n // len(fittings)) % WHOLE_EVERY == 0:  # in every round another fitting
                tablet.insist("GET", path)
        held.append(served.memory_mb())
        say(f"{edits} of {edits} edits: {held[-1]:.0f} MB")
        return {
            "memory_edits": float(edits), "memory_first_mb": held[0], "memory_last_mb": held[-1],
            "memory_most_mb": max(held),
        }  # fmt: skip
    finally:
        served.stop()


def edit_habit(tablet: Tablet, path: str, n: int) -> None:
    """Another attack and lean, by hundredths, and the answer to it at once."""
    view = tablet.insist("GET", f"{path}?at_once=true").body
    player = view["document"]["player"]
    mine = {**player, "delivery": {**player["delivery"]}}
    for key, step in (("attack_deg", 0.01), ("lean_deg", 0.013)):
        estimate = mine["delivery"][key]
        mine["delivery"][key] = {**estimate, "mean": round(estimate["mean"] + (step if n % 200 < 100 else -step), 4)}
    body = {
        "revision": view["revision"], "edit_id": str(uuid4()), "base": {"player": player}, "player": mine, "settled": [],
    }  # fmt: skip
    answer = tablet.insist("PATCH", path, body)
    if answer.status != 200 or answer.body["refused"] or answer.body["conflicts"]:
        raise AssertionError(f"an edit did not go in: {answer.body}")
