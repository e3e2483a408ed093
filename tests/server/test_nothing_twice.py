"""A write whose answer was lost and that is sent again is done once; reading is of one moment; order is no clock's."""

from datetime import timedelta
from uuid import uuid4

import pytest
from book import answered
from book.models import Answered, Batch, Blend, Card, Cook, Pour, Revision, Way, WeighBack
from django.db import transaction
from django.utils import timezone
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from test_words_api import queries


@pytest.fixture
def keyed(api):
    """Send a write twice under one key, as a screen does whose first answer was lost."""

    def send(method: str, path: str, body: object) -> tuple[int, dict]:
        api.client.defaults["HTTP_IDEMPOTENCY_KEY"] = str(uuid4())
        first = api(method, path, body)
        assert api(method, path, body) == first
        del api.client.defaults["HTTP_IDEMPOTENCY_KEY"]
        return first

    return send


def blend_document(api, rub) -> dict:
    document = api("GET", f"blends/{rub.pk}")[1]
    keys = ("name", "kind", "fire", "batch", "lines", "written", "base", "total", "targets", "uses", "method", "label")
    return {key: document[key] for key in keys}


def test_what_is_made_under_one_key_is_made_once(api, keyed, rub, cook):
    writes = [
        (Blend, "blends", blend_document(api, rub) | {"name": "Towpath rub"}),
        (Blend, f"blends/{rub.pk}/branch", {"version": rub.version, "name": "Hotter"}),
        (Cook, f"cooks/{cook.pk}/copy", {}),
        (Way, "cooks/ways", {"name": "Lock-side", "layers": api("GET", f"cooks/{cook.pk}")[1]["pieces"][0]["layers"]}),
    ]
    for model, path, body in writes:
        before = model.objects.count()
        status, answer = keyed("POST", path, body)
        assert (status, model.objects.count() - before) == (201, 1), (path, answer)


def test_a_card_a_batch_and_a_weigh_back_are_made_once(api, keyed, rub, cook):
    table = api("GET", f"trials/{cook.trial.id}")[1]
    scores = [{"code": code, "scale": "overall", "value": 7} for code in table["codes"]]
    card = {"taster": "Kingfisher", "served": table["next_order"], "scores": scores, "prefers": None}
    before = Card.objects.count()
    status, answer = keyed("POST", f"trials/{cook.trial.pk}/cards", card)
    assert (status, Card.objects.count() - before) == (201, 1), answer

    version = Blend.objects.get(pk=rub.pk).version
    before = Batch.objects.count()
    status, answer = keyed("POST", "batches", {"blend": str(rub.pk), "version": version, "wanted": "40 g"})
    assert (status, Batch.objects.count() - before) == (201, 1), answer

    pieces = api("GET", f"cooks/{cook.pk}")[1]["pieces"]
    letter, at = next(
        (piece["letter"], n) for piece in pieces for n, layer in enumerate(piece["layers"]) if layer["kind"] == "rub"
    )
    before = WeighBack.objects.count()
    weighed = {"letter": letter, "layer": at, "taken": "60 g", "left": "20 g"}
    status, answer = keyed("POST", f"cooks/{cook.pk}/weigh-back", weighed)
    assert (status, WeighBack.objects.count() - before) == (200, 1), answer


def test_a_save_whose_answer_was_lost_is_no_conflict_with_oneself(api, rub):
    sent = blend_document(api, rub) | {"version": rub.version, "name": "Once"}
    key = str(uuid4())
    api.client.defaults["HTTP_IDEMPOTENCY_KEY"] = key
    first = api("PUT", f"blends/{rub.pk}", sent)
    assert first[0] == 200
    assert api("PUT", f"blends/{rub.pk}", sent) == first
    del api.client.defaults["HTTP_IDEMPOTENCY_KEY"]
    assert api("PUT", f"blends/{rub.pk}", sent)[0] == 409
    assert Blend.objects.get(pk=rub.pk).version == rub.version + 1


def test_a_refused_write_may_come_again_under_its_key(api, rub):
    key = str(uuid4())
    api.client.defaults["HTTP_IDEMPOTENCY_KEY"] = key
    sent = {"blend": str(rub.pk), "version": rub.version + 7, "wanted": "40 g"}
    assert api("POST", "batches", sent)[0] == 409
    assert not Answered.objects.exists()
    assert api("POST", "batches", sent | {"version": rub.version})[0] == 201
    # the same key for something else is a mistake of the sender's
    assert api("POST", "batches", sent)[0] == 422
    assert api("POST", "blends", {})[0] == 422
    api.client.defaults["HTTP_IDEMPOTENCY_KEY"] = "seven"
    assert api("POST", "batches", sent)[0] == 422


def test_answers_are_let_go_after_an_hour_and_keys_after_a_season(api, rub):
    key = uuid4()
    api.client.defaults["HTTP_IDEMPOTENCY_KEY"] = str(key)
    sent = {"blend": str(rub.pk), "version": rub.version, "wanted": "40 g"}
    assert api("POST", "batches", sent)[0] == 201
    answered.let_go(timezone.now() + timedelta(minutes=59))
    assert api("POST", "batches", sent)[0] == 201
    answered.let_go(timezone.now() + timedelta(minutes=61))
    status, problem = api("POST", "batches", sent)
    assert (status, problem["title"]) == (409, "Done already")
    assert Batch.objects.filter(wanted_g=40).count() == 1
    answered.let_go(timezone.now() + timedelta(days=91))
    assert not Answered.objects.exists()


def test_a_key_costs_a_write_two_queries(api, rub):
    sent = blend_document(api, rub) | {"version": rub.version, "name": "Once"}
    plain = queries(lambda: api("PUT", f"blends/{rub.pk}", sent))
    api.client.defaults["HTTP_IDEMPOTENCY_KEY"] = str(uuid4())
    again = sent | {"version": rub.version + 1, "name": "Again"}
    assert queries(lambda: api("PUT", f"blends/{rub.pk}", again)) == plain + 2


def test_the_last_pour_is_the_last_one_made_whatever_the_clock_says(api, rub):
    batch = api("POST", "batches", {"blend": str(rub.pk), "version": rub.version, "wanted": "40 g"})[1]
    keys = [str(uuid4()) for _ in range(3)]
    for grams, key in zip((1.0, 2.0, 0.5), keys, strict=True):
        pour = {"version": batch["version"], "line": batch["current"], "grams": grams, "key": key}
        batch = api("POST", f"batches/{batch['id']}/pour", pour)[1]
    Pour.objects.filter(key=keys[2]).update(at=timezone.now() - timedelta(hours=1))
    batch = api("GET", f"batches/{batch['id']}")[1]
    assert batch["last_pour"] == keys[2]
    batch = api("POST", f"batches/{batch['id']}/take-back", {"version": batch["version"]})[1]
    assert (batch["last_pour"], batch["poured_g"]) == (keys[1], 3.0)


def test_revisions_stand_in_the_order_they_were_kept_though_the_clock_was_set_back(api, rub):
    before = [node["id"] for node in api("GET", f"blends/{rub.pk}/tree")[1]]
    for back, key in enumerate(before):
        Revision.objects.filter(pk=key, kept_at__isnull=False).update(kept_at=timezone.now() - timedelta(hours=back))
    nodes = api("GET", f"blends/{rub.pk}/tree")[1]
    place = {node["id"]: at for at, node in enumerate(nodes)}
    assert place.keys() == set(before)
    assert sum(node["parent"] in place for node in nodes) >= 3
    assert all(place[node["parent"]] < at for at, node in enumerate(nodes) if node["parent"])
    own = [node["number"] for node in nodes if node["blend_id"] == str(rub.pk) and node["number"]]
    assert own == sorted(own)
    assert len(own) > 1


@settings(max_examples=25, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.lists(st.tuples(st.sampled_from(("cook", "blend", "batch", "save")), st.integers(0, 3)), max_size=8))
def test_whatever_answers_are_lost_each_thing_is_done_once(api, rub, cook, done):
    """Each is sent up to four times, as answers are lost: before it arrives, or on the way back."""
    document = blend_document(api, rub)

    def write(what: str, n: int) -> tuple[str, str, dict]:
        version = Blend.objects.get(pk=rub.pk).version
        return {
            "cook": ("POST", f"cooks/{cook.pk}/copy", {}),
            "blend": ("POST", "blends", document | {"name": f"Rub {n}"}),
            "batch": ("POST", "batches", {"blend": str(rub.pk), "version": version, "wanted": "40 g"}),
            "save": ("PUT", f"blends/{rub.pk}", document | {"version": version, "batch": f"{100 + n} g"}),
        }[what]

    models = {"cook": Cook, "blend": Blend, "batch": Batch}
    with transaction.atomic():
        before = {what: model.objects.count() for what, model in models.items()}
        first = Blend.objects.get(pk=rub.pk).version
        for n, (what, lost) in enumerate(done):
            sent = write(what, n)
            api.client.defaults["HTTP_IDEMPOTENCY_KEY"] = str(uuid4())
            answers = [api(*sent) for _ in range(1 + lost)]
            assert all(answer == answers[0] for answer in answers)
            assert answers[0][0] < 300
        for what, model in models.items():
            assert model.objects.count() - before[what] == sum(of == what for of, _ in done)
        writes = sum(of in ("save", "batch") for of, _ in done)
        assert Blend.objects.get(pk=rub.pk).version == first + writes
        transaction.set_rollback(True)
    api.client.defaults.pop("HTTP_IDEMPOTENCY_KEY", None)
