"""Whatever is written in whatever order, accepted or refused: every list and every document still opens."""

from collections import Counter
from uuid import uuid4

from book.models import Batch, Blend, Card, Cook, Revision, Step, Trial, Way
from books.open_all import addresses
from django.db import transaction
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import strategies as st

PARTS = ("1", "2½", "1/8", "0", "-1", "x", "10000", "")
MASSES = ("900 g", "2.3 kg", "5 lb 1 oz", "heavy", "1 mg", "")
DOSES = ("5", "6", "0.7", "900", "", "much")
HOLDS = ("2 h", "16 h", "30 min", "0 h", "9 days", "")
CUTS = ("lamb-shoulder", "duck-leg", "trout-whole", "gone", "beef-strips")


class Hands:
    """Does one thing to the book over the API, chosen by numbers."""

    def __init__(self, api) -> None:
        self.api = api
        self.answers: Counter[str] = Counter()

    def send(self, method: str, path: str, body: object = None) -> None:
        status, _ = self.api(method, path, body)
        assert status < 500, f"{method} {path}"
        self.answers["accepted" if status < 300 else "refused"] += 1

    def one(self, model, n: int):
        rows = list(model.objects.order_by("pk"))
        return rows[n % len(rows)] if rows else None

    def blend(self, n: int) -> None:
        row = self.one(Blend, n)
        status, document = self.api("GET", f"blends/{row.pk}")
        if status != 200:
            return
        lines = document["lines"]
        if n % 3 == 0:
            lines.append({"blend": str(self.one(Blend, n // 7).pk), "parts": "1"})
        elif n % 3 == 1 and lines:
            lines[n % len(lines)] |= {"parts": PARTS[n % len(PARTS)], "exact": ""}
        else:
            lines = lines[: n % 4]
        version = document["version"] - (n % 11 == 0)
        self.send("PUT", f"blends/{row.pk}", document | {"lines": lines, "version": max(1, version)})

    def revision(self, n: int) -> None:
        row = self.one(Blend, n)
        do = ("keep", "archive", "delete", "restore", "branch", "go-back", "sieve")[n % 7]
        kept = Revision.objects.filter(blend=row, kept_at__isnull=False).first()
        body = {"version": row.version, "note": "so far", "archived": bool(n % 2), "name": "A branch"}
        self.send("POST", f"blends/{row.pk}/{do}", body | {"revision": str(kept.pk) if kept else str(uuid4())})

    def cook(self, n: int) -> None:
        row = self.one(Cook, n)
        status, document = self.api("GET", f"cooks/{row.pk}")
        if status != 200:
            return
        pieces = document["pieces"]
        piece = pieces[n % len(pieces)]
        layer = piece["layers"][n % len(piece["layers"])] if piece["layers"] else {}
        do = n % 8
        if do == 0:
            piece["mass"] = MASSES[n % len(MASSES)]
        elif do == 1:
            layer["dose"] = DOSES[n % len(DOSES)]
        elif do == 2:
            layer["hold"] = HOLDS[n % len(HOLDS)]
        elif do == 3:
            piece["cut"] = CUTS[n % len(CUTS)]
        elif do == 4:
            piece["tasted"] = not piece["tasted"]
        elif do == 5 and len(pieces) < 8:
            pieces.append(piece | {"letter": "ABCDEFGH"[len(pieces)], "name": "Another", "tasted": False})
        elif do == 6 and len(pieces) > 1:
            pieces.remove(piece)
        else:
            piece["layers"].reverse()
        self.send("PUT", f"cooks/{row.pk}", document)

    def step(self, n: int) -> None:
        step = self.one(Step, n)
        cook = Cook.objects.get(pieces__steps=step)
        body = {"version": cook.version, "done": bool(n % 3), "lasts": HOLDS[n % 6] if n % 2 else None}
        self.send("POST", f"cooks/{cook.pk}/steps/{step.pk}", body)

    def event(self, n: int) -> None:
        row = self.one(Cook, n)
        do = ("take", "delete", "restore", "copy", "even")[n % 5]
        whats = ("salt", "fire", "bare face", "weight", "layers on both", "layers off")
        body = {"version": row.version, "what": whats[n % 6]}
        self.send("POST", f"cooks/{row.pk}/{do}", body)

    def trial(self, n: int) -> None:
        rows = list(Trial.objects.filter(cards__isnull=True).order_by("pk"))
        if not rows:
            return
        row = rows[n % len(rows)]
        status, now = self.api("GET", f"trials/{row.pk}/design")
        if status != 200:
            return
        kind = ("preference", "ranking", "scores", "triangle")[n % 4]
        letters = [piece["letter"] for piece in now["pieces"]][: 2 + n % 5]
        body = {"version": now["version"], "question": "Which?", "kind": kind, "letters": letters, "cards": 1 + n % 20,
                "twin": n % 3 == 0, "scales": now["scales"][: n % 5]}  # fmt: skip
        self.send("PUT", f"trials/{row.pk}/design", body)
        seats = [{"taster": f"Boat {at}", "short": at == 2} for at in range(n % 5)]
        self.send("PUT", f"trials/{row.pk}/seats", {"version": now["version"] + n % 2, "seats": seats})
        self.send("POST", f"trials/{row.pk}/gone", {"taster": "Boat 1", "gone": bool(n % 2)})
        self.send("POST", f"trials/{row.pk}/looks", {"who": f"Boat {n % 4}"})
        self.send("POST", f"trials/{row.pk}/two-by-two", {"version": now["version"]})

    def card(self, n: int) -> None:
        trial = self.one(Trial, n)
        if trial is None:
            return
        status, table = self.api("GET", f"trials/{trial.pk}")
        if status != 200:
            return
        scores = [{"code": code, "scale": "overall", "value": 1 + n % 9} for code in table["codes"]]
        body = {"taster": f"Boat {n % 4}", "served": table["next_order"], "scores": scores, "prefers": None}
        self.send("POST", f"trials/{trial.pk}/cards", body)
        card = Card.objects.filter(trial=trial).first()
        if n % 3 == 0 and card is not None:
            self.send("POST", f"trials/{trial.pk}/cards/{card.pk}/delete")
        if n % 5 == 0:
            self.send("POST", f"trials/{trial.pk}/reveal")

    def batch(self, n: int) -> None:
        blend, batch = self.one(Blend, n), self.one(Batch, n)
        if n % 3 == 0:
            body = {"blend": str(blend.pk), "version": blend.version, "wanted": MASSES[n % len(MASSES)]}
            return self.send("POST", "batches", body)
        line = batch.lines.all()[n % batch.lines.count()]
        body = {"version": batch.version, "line": str(line.pk), "amount": f"{n % 40}.5 g", "key": str(uuid4())}
        if n % 3 == 1:
            return self.send("POST", f"batches/{batch.pk}/pour-by-hand", body | {"out": bool(n % 2)})
        do = ("take-back", "finish", "leave", "restore", "rescue", "enough")[n % 6]
        return self.send("POST", f"batches/{batch.pk}/{do}", body | {"size_ml": 250, "choice": "accept"})

    def way(self, n: int) -> None:
        way = self.one(Way, n)
        layer = {"kind": "rub", "blend_id": str(self.one(Blend, n).pk), "dose": DOSES[n % 6], "hold": HOLDS[n % 6]}
        self.send("POST", "cooks/ways", {"name": "A way" if n % 4 else "", "layers": [layer]})
        self.send("POST", f"cooks/ways/{way.pk}/{'delete' if n % 2 else 'restore'}")


DOINGS = ("blend", "revision", "cook", "step", "event", "trial", "card", "batch", "way")


def test_after_any_writes_every_list_and_document_opens(api, book):
    answers: Counter[str] = Counter()

    @given(st.lists(st.tuples(st.sampled_from(DOINGS), st.integers(0, 2**12)), min_size=5, max_size=8))
    @settings(
        max_examples=2, deadline=None, derandomize=True, database=None, suppress_health_check=list(HealthCheck),
        phases=[Phase.generate],  # each step opens the whole book: what fails is read off the last doing
    )  # fmt: skip
    def write(doings):
        with transaction.atomic():
            hands = Hands(api)
            for doing, number in doings:
                getattr(hands, doing)(number)
                for address in addresses():
                    assert api("GET", address)[0] == 200, f"{address} after {doing} {number}"
            answers.update(hands.answers)
            transaction.set_rollback(True)

    write()
    assert answers["accepted"] > 5
    assert answers["refused"] > 1
