"""A simulated thermometer: a device of its own that speaks the open interface of docs/thermometer.md.

Run by ``manage.py thermometer`` or from the fire. It knows Ravska only by its address, as a real thermometer's bridge
would; its readings are those of a hidden cook (`devices.hidden`). What it could not send it keeps and sends later. It
ends when it is told to or hears nothing for long.
"""

import argparse
import json
import os
import threading
import time
import urllib.error
import urllib.request
from collections import deque
from collections.abc import Callable, Sequence
from datetime import UTC, datetime, timedelta
from multiprocessing.connection import wait
from multiprocessing.process import parent_process
from typing import Any

from devices.hidden.cook import HiddenCook, Wanted
from devices.hidden.fire import Burns

PATIENCE_S, _POST_EVERY_S, _MOST_KEPT, _MOST_SENT = 120.0, 0.5, 20_000, 500
EVERY_S = 5.0
"""How often it reads, by its own time [s]."""

_REMEMBERS_EVERY_S, _MOST_BEHIND_S = 60.0, 3600.0

Deed = tuple[float, str, str, float]
"""Something that hands did: when [s from the beginning], what, with which piece, a number."""


class Thermometer:
    """The device with its link: lets its cook go on, sends what its probes show, does what it is told."""

    def __init__(
        self, address: str, token: str, cook: HiddenCook, began_at: datetime, speed: float = 1.0,
        deeds: Sequence[Deed] = (), elapsed_s: float = 0.0,
    ) -> None:  # fmt: skip
        self.address, self.token, self.cook, self.began_at, self.speed = (
            address.rstrip("/"),
            token,
            cook,
            began_at,
            speed,
        )
        self.kept: deque[dict[str, Any]] = deque(maxlen=_MOST_KEPT)
        self._done: deque[str] = deque(maxlen=50)
        self.behind_s = 0.0
        for at, what, name, number in sorted(deeds):
            self._catch_up(min(at, elapsed_s))
            self.cook.do(what, name, number)
        self._catch_up(elapsed_s)

    def _catch_up(self, seconds: float) -> None:
        """Go through what has been already, read each minute, as a thermometer with a memory tells it afterwards."""
        while self.cook.seconds < seconds - 1e-6:
            self.watch(min(_REMEMBERS_EVERY_S, seconds - self.cook.seconds), _REMEMBERS_EVERY_S)

    @property
    def now(self) -> datetime:
        """What its own clock shows."""
        return self.began_at + timedelta(seconds=self.cook.seconds)

    def watch(self, seconds: float, every_s: float = EVERY_S) -> None:
        """Let so much of its own time go by, and keep what its probes show."""
        left = seconds
        while left > 1e-6:
            step = min(every_s, left)
            self.cook.go(step)
            left -= step
            at = self.now.isoformat(timespec="milliseconds")
            self.kept += [
                {"channel": channel, "celsius": round(celsius, 1), "at": at}
                for channel, celsius in self.cook.shown().items()
            ]

    def send(self) -> bool:
        """Send what is kept; return whether to go on."""
        rows = [self.kept[at] for at in range(min(_MOST_SENT, len(self.kept)))]
        document = {"sent_at": self.now.isoformat(), "readings": rows, "done": list(self._done)}
        request = urllib.request.Request(
            f"{self.address}/api/devices/thermometer/readings", json.dumps(document).encode(),
            {"Content-Type": "application/json", "Authorization": f"Bearer {self.token}"},
        )  # fmt: skip
        with urllib.request.urlopen(request, timeout=5) as answer:
            told = json.load(answer)
            orders = told.get("do", [])
        if "now" in told:
            self.behind_s = max(0.0, (datetime.fromisoformat(told["now"]) - self.now).total_seconds())
        for _ in rows:
            self.kept.popleft()
        return self._obey(orders)

    def _obey(self, orders: list[dict[str, Any]]) -> bool:
        for order in orders:
            if order["id"] in self._done:
                continue  # told again, as what was told back of it was lost
            self._done.append(order["id"])
            if order["do"] == "stop":
                return False
            if order["do"] == "speed":
                self.speed = float(order["number"])
            else:
                self.cook.do(order["do"], order.get("name", ""), float(order.get("number") or 0.0))
        return True

    def run(self, sleep: Callable[[float], None] = time.sleep, clock: Callable[[], float] = time.monotonic) -> None:
        """Stream until told to stop, or until nobody has answered for `PATIENCE_S`."""
        heard = before = clock()
        while clock() - heard < PATIENCE_S:
            sleep(_POST_EVERY_S)
            now = clock()
            # what begun late, or was told late to go faster, catches up with the cook's clock
            self.watch(max((now - before) * self.speed, min(self.behind_s, _MOST_BEHIND_S)))
            before, self.behind_s = now, 0.0
            try:
                if not self.send():
                    return
                heard = clock()
            except urllib.error.HTTPError as refused:
                if refused.code == 403:
                    return  # its token was taken away
            except (urllib.error.URLError, OSError, ValueError):
                pass  # the server is away: it is sent later


def begin(
    address: str, token: str, pieces: Sequence[dict[str, Any]], burns: dict[str, Any], seed: int, began_at: str,
    speed: float, deeds: Sequence[Deed], elapsed_s: float,
) -> None:  # fmt: skip
    """Run a thermometer in a process of its own that ends with the one that began it."""
    parent = parent_process()
    if parent is not None:

        def watch() -> None:
            wait([parent.sentinel])
            os._exit(0)

        threading.Thread(target=watch, daemon=True).start()
    cook = HiddenCook(Burns(**burns), [Wanted(**one) for one in pieces], seed, drop_outs_an_hour=0.2, slips=0.15)
    Thermometer(address, token, cook, datetime.fromisoformat(began_at), speed, deeds, elapsed_s).run()


def arguments(parser: argparse.ArgumentParser) -> None:
    """Add what the thermometer can be told on the command line."""
    parser.add_argument("--server", default="http://127.0.0.1:8000", help="where Ravska is")
    parser.add_argument("--token", default=os.environ.get("RAVSKA_DEVICE_TOKEN", ""), help="the token made at the fire")
    parser.add_argument("--pit", type=float, default=120.0, help="what its fire is aimed at [°C]")
    parser.add_argument("--length", type=float, default=24.0, help="of its piece [cm]")
    parser.add_argument("--width", type=float, default=13.0, help="of its piece [cm]")
    parser.add_argument("--thickness", type=float, default=11.0, help="of its piece [cm]")
    parser.add_argument("--steady", action="store_true", help="a fire that holds itself, as an oven does")
    parser.add_argument("--seed", type=int, default=0, help="the same seed gives the same cook")


def start(options: dict[str, Any]) -> None:
    """Run a thermometer with these options, by everybody's time, until it is told to stop."""
    burns = Burns("steady" if options["steady"] else "charcoal", options["pit"])
    piece = Wanted("1", options["length"], options["width"], options["thickness"])
    cook = HiddenCook(burns, [piece], options["seed"])
    Thermometer(options["server"], options["token"], cook, datetime.now(UTC)).run()


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    arguments(parser)
    start(vars(parser.parse_args()))


if __name__ == "__main__":
    main()
