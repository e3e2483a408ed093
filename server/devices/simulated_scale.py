"""A simulated kitchen scale: a device of its own that speaks the open scale interface of docs/scale.md.

Run by ``manage.py scale`` or from the weigh-out screen. It knows Ravska only by its address, as a real scale's bridge
would, keeps what lies on it while the server is away, and ends when it is told to or hears nothing for long.
"""

import argparse
import json
import os
import time
import urllib.error
import urllib.request
from collections import deque
from collections.abc import Callable
from typing import Any

from ravska_core.bowl import READINGS_A_SECOND, ScaleSettings, SimulatedScale

PATIENCE_S = 120.0
"""How long it goes on alone before it switches itself off [s]."""

_POSTS_A_SECOND = 5


def _post(address: str, document: dict[str, Any], token: str) -> dict[str, Any]:
    request = urllib.request.Request(
        f"{address}/api/devices/scale/readings",
        json.dumps(document).encode(),
        {"Content-Type": "application/json", "Authorization": f"Bearer {token}"},
    )
    with urllib.request.urlopen(request, timeout=2) as answer:
        found: dict[str, Any] = json.load(answer)
        return found


class Device:
    """The scale with its link: reads the pan, sends what it shows, does what it is told."""

    def __init__(
        self,
        address: str,
        settings: ScaleSettings,
        name: str = "kitchen",
        seed: int = 0,
        patience_s: float = PATIENCE_S,
        token: str = "",
    ) -> None:
        self.address, self.name, self.patience_s = address.rstrip("/"), name, patience_s
        self.token = token
        self.scale = SimulatedScale(settings, seed)
        self.settings = settings
        self._pouring: tuple[float, float] = (0.0, 0.0)
        self._done: deque[str] = deque(maxlen=50)

    def obey(self, orders: list[dict[str, Any]]) -> bool:
        """Do what the answer to a post says; return whether to go on."""
        for order in orders:
            if order.get("id") in self._done:
                continue  # told again, as what was told back of it was lost
            self._done.append(str(order.get("id")))
            do, grams = order.get("do"), float(order.get("grams") or 0.0)
            if do == "tare":
                self.scale.tare()
            elif do == "put":
                self.scale.put(grams)
            elif do == "pour":  # a stream of so many grams a second, until it is told otherwise
                self._pouring = (grams, float(order.get("seconds") or 0.0))
            elif do == "clear":
                self.scale.clear()
            elif do == "drop out":
                self.scale.drop_out(float(order.get("seconds") or 5.0))
            elif do == "stop":
                return False
        return True

    def watch(self, readings: int, step_s: float) -> list[dict[str, Any]]:
        """Let the scale run for so many readings and return those it shows."""
        found = []
        for _ in range(readings):
            rate, left = self._pouring
            if rate and left > 0:
                self.scale.put(rate * min(step_s, left))
                self._pouring = (rate, left - step_s)
            reading = self.scale.read(step_s)
            if reading is not None:
                found.append(
                    {"at_s": round(reading.at_s, 3), "grams": reading.grams, "settled": reading.settled,
                     "overload": reading.overload}
                )  # fmt: skip
        return found

    def run(self, sleep: Callable[[float], None] = time.sleep, clock: Callable[[], float] = time.monotonic) -> None:
        """Stream until told to stop, or until nobody has answered for `patience_s`."""
        heard = clock()
        each = READINGS_A_SECOND // _POSTS_A_SECOND
        while clock() - heard < self.patience_s:
            readings = self.watch(each, 1 / READINGS_A_SECOND)
            document = {
                "scale": self.name,
                "kind": "simulated",
                "capacity_g": self.settings.capacity_g,
                "resolution_g": self.settings.resolution_g,
                "readings": readings,
                "done": list(self._done),
            }
            try:
                # a scale whose link has dropped out says nothing at all
                if readings:
                    if not self.obey(_post(self.address, document, self.token).get("do", [])):
                        return
                    heard = clock()
            except (urllib.error.URLError, OSError, ValueError):
                sleep(0.4)  # the server is away: try again, what lies on the pan stays
            sleep(1 / _POSTS_A_SECOND)


def arguments(parser: argparse.ArgumentParser) -> None:
    """Add what the scale can be told on the command line."""
    parser.add_argument("--server", default="http://127.0.0.1:8000", help="where Ravska is")
    parser.add_argument("--name", default="kitchen", help="what the scale is called")
    parser.add_argument("--resolution", type=float, default=0.1, help="0.1 or 1 [g]")
    parser.add_argument("--capacity", type=float, default=5000.0, help="most it carries [g]")
    parser.add_argument("--noise", type=float, default=None, help="how much it trembles [g]")
    parser.add_argument("--drift", type=float, default=0.05, help="how much it creeps [g/min]")
    parser.add_argument("--drop-outs", type=float, default=0.0, help="how often its link is lost [1/min]")
    parser.add_argument("--token", default=os.environ.get("RAVSKA_DEVICE_TOKEN", ""), help="who it says it is")
    parser.add_argument("--seed", type=int, default=0, help="the same seed gives the same readings")


def start(options: dict[str, Any]) -> None:
    """Run a scale with these options until it is told to stop."""
    settings = ScaleSettings(
        capacity_g=options["capacity"],
        resolution_g=options["resolution"],
        noise_g=options["noise"],
        drift_g_min=options["drift"],
        drop_outs_a_minute=options["drop_outs"],
    )
    Device(options["server"], settings, options["name"], options["seed"], token=options["token"]).run()


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    arguments(parser)
    start(vars(parser.parse_args()))


if __name__ == "__main__":
    main()
