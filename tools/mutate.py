"""Turn lines round where numbers are decided, and see that a test fails: `make mutate`.

A seeded sample of every subject's mutants (`ALL=1` for all, `SUBJECTS="doses ledger"` for some, `SEED=2` for others) is
made one by one in a copy of the project; the tests that cover the mutant's line run first, then the others that cover
its function. Sentences are not turned round, arithmetic, comparisons, boundaries, constants and conditions are. Mutants
shown to be equivalent stand with their reason in `equivalent_mutants.txt` and are not counted.
"""

import difflib
import json
import os
import queue
import random
import re
import shutil
import subprocess
import sys
import tempfile
import time
from collections import defaultdict
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

import parso
from cosmic_ray.ast import ast_nodes
from cosmic_ray.mutating import mutate_code
from cosmic_ray.plugins import get_operator, operator_names
from coverage import Coverage, CoverageData

ROOT = Path(__file__).resolve().parents[1]
CORE = "core/ravska_core"
SUBJECTS = {
    "mixing": ["bowl/mixing.py", "bowl/measuring.py", "bowl/sharing.py", "blend/volume.py"],
    "methods": ["blend/method.py", "blend/method_words.py"],
    "composition": ["blend/estimate.py", "blend/parts.py", "blend/label.py"],
    "errors": ["blend/uncertainty.py", "blend/label_list.py", "blend/qualities.py"],
    "ratios": ["blend/ratios.py", "blend/ratio_edits.py", "blend/nudge.py"],
    "weighing": ["bowl/weighing.py", "bowl/scale.py"],
    "correcting": ["bowl/correcting.py"],
    "doses": ["coat/doses.py", "blend/scales.py", "coat/layers.py"],
    "stack": ["coat/stack.py", "coat/binder.py"],
    "ledger": ["coat/ledger.py", "coat/weigh_back.py", "coat/drippings.py"],
    "fates": ["coat/fates.py", "coat/strength.py", "coat/wetness.py", "coat/on_fire.py"],
    "injection": ["coat/injection.py", "coat/injected.py", "coat/spread.py", "coat/sites.py"],
    "marinade": ["coat/marinade.py", "coat/additives.py", "coat/thin_cut.py"],
    "cautions": ["cautions/clocks.py", "cautions/judging.py", "cautions/rules.py", "cautions/situation.py"],
    "quantities": ["measure/amounts.py", "measure/measures.py", "measure/spoons.py", "units.py"],
    "said": ["measure/numbers.py", "measure/quantities.py", "measure/tokens.py"],
    "lists": ["exchange/lists.py", "exchange/items.py", "exchange/clauses.py", "exchange/words.py"],
    "heat": [
        "heat/solver.py",
        "heat/run.py",
        "heat/geometry.py",
        "heat/properties.py",
        "heat/grid.py",
        "heat/chances.py",
    ],
    "fires": [
        "heat/phases.py",
        "heat/cookers.py",
        "heat/scorch.py",
        "heat/endpoints.py",
        "heat/tenderness.py",
        "heat/reading.py",
        "heat/fired.py",
        "heat/skewers.py",
        "heat/what_if.py",
        "measure/fire.py",
    ],
    "day": [
        "day/plan.py",
        "day/tasks.py",
        "day/during.py",
        "day/lanes.py",
        "day/sides.py",
        "day/reading.py",
        "day/clocks.py",
        "day/start_now.py",
        "day/ways_out.py",
        "day/moved.py",
        "day/eaters.py",
    ],
    "forecast": ["heat/live.py", "heat/fit.py", "heat/forecasting.py", "heat/again.py", "fire/told.py"],
    "at-fire": [
        "fire/log.py",
        "fire/pit.py",
        "fire/probes.py",
        "fire/stall.py",
        "fire/clocks.py",
        "fire/alarms.py",
        "fire/reading.py",
        "fire/embers.py",
        "fire/thinning.py",
        "fire/readings_csv.py",
    ],
    "after": ["fire/after.py", "fire/eaten.py", "fire/happened.py", "fire/leftovers.py", "trial/confounds.py"],
    "table": [
        "trial/design.py",
        "trial/tests.py",
        "trial/ranks.py",
        "trial/liking.py",
        "trial/power.py",
        "trial/changes.py",
        "trial/serving.py",
        "trial/cards_csv.py",
    ],
    "across": [
        "across/model.py",
        "across/posterior.py",
        "across/rule.py",
        "across/ahead.py",
        "across/evidence.py",
        "across/reading.py",
        "across/cell.py",
        "across/salt.py",
        "across/next.py",
        "across/muddy.py",
        "across/ways.py",
        "across/traits.py",
    ],
    "one-trial": ["trial/cards.py", "trial/reading.py", "trial/explain.py", "trial/verdict.py"],
    "own": ["catalogue/own.py", "meat/own_cuts.py", "meat/portions.py", "blend/panel.py"],
}
SAMPLE, MOST_SECONDS, STUCK_AFTER = 25, 40.0, 300
ALL_KILLED, EACH_KILLED = 0.85, 0.75
# one slip of the hand each: every operator's other variants (shifts, `is`, bits) are not what people mistype
WANTED = re.compile(
    r"core/(ReplaceBinaryOperator_(Add_Sub|Sub_Add|Mul_Div|Div_Mul|FloorDiv_Div|Mod_Mul|Pow_Mul)"
    r"|ReplaceComparisonOperator_(Eq_NotEq|NotEq_Eq|Lt_LtE|LtE_Lt|Gt_GtE|GtE_Gt|Lt_Gt|Gt_Lt|LtE_Gt|GtE_Lt|Is_IsNot|IsNot_Is)"
    r"|ReplaceUnaryOperator_Delete_(USub|Not)|AddNot|Replace(TrueWithFalse|FalseWithTrue|AndWithOr|OrWithAnd)|NumberReplacer)"
)
SENTENCES = ("fstring", "raise_stmt", "annassign", "import_from")
GUARDS = ("strict", "maxsize", "typed", "frozen", "eq", "slots")
"""Arguments that decide no number: guards of our own invariants, and how much is kept."""

TESTS, HELD = ["tests/core"], "tests/core/held/"
TABLES = f"{HELD}test_held.py::test_what_is_held_has_not_moved[constants]"
"""Looks at every table and constant; they are made when a module is loaded, in no test's own time."""


@dataclass(frozen=True)
class Mutant:
    """One line turned round: the file and its text, the operator's occurrence in it, its line, its function's lines."""

    subject: str
    path: str
    text: str
    operator: str
    occurrence: int
    line: int
    function: range

    @property
    def made(self) -> str:
        """The file's text with this mutant in it."""
        made = mutate_code(self.text, get_operator(self.operator)(), self.occurrence)
        assert made is not None
        return made

    @property
    def change(self) -> tuple[str, str]:
        """The line as it stands and as it was turned round."""
        changed = [each for each in difflib.ndiff(self.text.splitlines(), self.made.splitlines()) if each[0] in "-+"]
        return tuple(next((c[2:].strip() for c in changed if c[0] == sign), "") for sign in "-+")  # type: ignore[return-value]


def mutants_of(subject: str, path: str) -> Iterator[Mutant]:
    """Every mutant of a file that is wanted and lies outside sentences and annotations."""
    text = (ROOT / path).read_text()
    tree = parso.parse(text)
    for name in filter(WANTED.match, operator_names()):
        operator, occurrence = get_operator(name)(), -1
        for node in ast_nodes(tree):
            for _ in operator.mutation_positions(node):
                occurrence += 1
                above = list(parents(node))
                if any(each.type in SENTENCES for each in above if each.type != "annassign" or not_value(node, each)):
                    continue
                if any(each.type == "argument" and getattr(each.children[0], "value", "") in GUARDS for each in above):
                    continue
                made_once = any(each.type == "parameters" for each in above)  # what is usual, when a module is loaded
                functions = [] if made_once else [each for each in above if each.type == "funcdef"]
                lines = (functions[0].start_pos[0], functions[0].end_pos[0]) if functions else (0, 0)
                yield Mutant(subject, path, text, name, occurrence, node.start_pos[0], range(lines[0], lines[1]))


def parents(node: parso.tree.NodeOrLeaf) -> Iterator[parso.tree.BaseNode]:
    """The nodes a node lies in, from the nearest outwards."""
    while node.parent is not None:
        node = node.parent
        yield node


def not_value(node: parso.tree.NodeOrLeaf, annotated: parso.tree.BaseNode) -> bool:
    """Whether a node lies in the annotation, not in the value, of `name: annotation = value`."""
    return node.start_pos < annotated.children[1].end_pos


class Watch:
    """A pytest plugin that notes which test covers which line, and how long each takes."""

    def __init__(self, watched: Coverage) -> None:
        self.watched = watched
        self.seconds: dict[str, float] = defaultdict(float)

    def pytest_runtest_logstart(self, nodeid: str) -> None:
        self.watched.switch_context(nodeid)

    def pytest_runtest_logreport(self, report) -> None:  # type: ignore[no-untyped-def]  # pytest's own report
        self.seconds[report.nodeid] += report.duration


def watch(there: Path) -> None:
    """Run the tests once in a copy and leave beside it what covers what (called in a process of its own)."""
    import pytest

    watched = Coverage(data_file=str(there / "covered"), include=[f"{there}/{CORE}/*"])
    plugin = Watch(watched)
    watched.start()
    failed = pytest.main(["-q", *TESTS], plugins=[plugin])
    watched.stop()
    watched.save()
    (there / "seconds.json").write_text(json.dumps(plugin.seconds))
    sys.exit(int(failed))


def pytest_collection_modifyitems(items: list) -> None:  # type: ignore[type-arg]  # this file is also a plugin
    """Keep the tests that were asked for, in the order they were asked for."""
    order = {each: at for at, each in enumerate(json.loads(Path("asked.json").read_text()))}
    items[:] = sorted((item for item in items if item.nodeid in order), key=lambda item: order[item.nodeid])


@dataclass
class Covered:
    """Which tests cover a line, and how long each takes."""

    data: CoverageData
    seconds: dict[str, float]
    there: Path

    def tests(self, mutant: Mutant) -> list[str]:
        """The tests that may kill a mutant: its own package's first, those of its line before its function's, the quick
        before the slow, a minute of them at most."""
        by_line = self.data.contexts_by_lineno(str(self.there / mutant.path))
        of_line = set(by_line.get(mutant.line, [])) - {""} if mutant.function else set()
        of_function = {test for at in mutant.function for test in by_line.get(at, [])} - {""}
        wanted = of_line | of_function or {test for tests in by_line.values() for test in tests} - {""}
        package = mutant.path.removeprefix(f"{CORE}/").split("/")[0]

        def rank(test: str) -> tuple[bool, bool, float]:
            return test not in of_line, not test.startswith((HELD, f"tests/core/{package}/")), self.seconds[test]

        chosen, spent = [] if mutant.function else [TABLES], 0.0
        for test in sorted(wanted, key=rank):
            spent += self.seconds[test]
            if len(chosen) > 1 and spent > MOST_SECONDS:
                break
            chosen.append(test)
        return chosen


def copied(to: Path) -> Path:
    """A copy of what the tests of the core need."""
    for part in ("core", "tests", "server"):
        shutil.copytree(ROOT / part, to / part, ignore=shutil.ignore_patterns("__pycache__", "*.sqlite3"))
    shutil.copy(ROOT / "pyproject.toml", to)
    (to / "web").symlink_to(ROOT / "web")  # published tables that tests read come with its packages
    return to


def python(there: Path, *arguments: str) -> subprocess.CompletedProcess[str]:
    """Python in a copy of the project, this file at hand as a plugin."""
    path = os.pathsep.join(str(there / each) for each in ("core", "server", "tests")) + f"{os.pathsep}{ROOT / 'tools'}"
    here = os.environ | {"PYTHONPATH": path, "PYTHONDONTWRITEBYTECODE": "1", "HYPOTHESIS_PROFILE": "mutants"}
    return subprocess.run(
        [sys.executable, *arguments], cwd=there, env=here, capture_output=True, text=True, timeout=STUCK_AFTER
    )


def killed(mutant: Mutant, tests: list[str], there: Path) -> bool:
    """Whether a test fails, or never ends, with the mutant in the copy `there`."""
    if not tests:
        return False
    at = there / mutant.path
    as_it_stands = at.read_text()
    (there / "asked.json").write_text(json.dumps(tests))
    try:
        at.write_text(mutant.made)
        files = sorted({test.split("::")[0] for test in tests})
        return python(there, "-m", "pytest", "-x", "-q", "-p", "mutate", *files).returncode != 0
    except subprocess.TimeoutExpired:
        return True
    finally:
        at.write_text(as_it_stands)


def sample(subjects: list[str], seed: int, everything: bool) -> list[Mutant]:
    """The mutants to try: every subject's in a seeded order, all or the first 25."""
    chosen = []
    for subject in subjects:
        of_subject = [m for path in SUBJECTS[subject] for m in mutants_of(subject, f"{CORE}/{path}")]
        random.Random(f"{seed} {subject}").shuffle(of_subject)
        chosen += of_subject if everything else of_subject[:SAMPLE]
    return chosen


def equivalents() -> set[tuple[str, str, str]]:
    """Mutants shown to change nothing: path, line, line turned round; a reason after them."""
    lines = (ROOT / "tools/equivalent_mutants.txt").read_text().splitlines()
    rows = [[part.strip() for part in line.split(" ¦ ")] for line in lines if line and not line.startswith("#")]
    return {(f"{CORE}/{path}", was, became) for path, was, became, _ in rows}


def main() -> int:
    """Try the sample and say by subject how many were killed; the survivors line by line."""
    subjects = os.environ.get("SUBJECTS", "").split() or list(SUBJECTS)
    chosen = sample(subjects, int(os.environ.get("SEED") or 1), bool(os.environ.get("ALL")))
    known, hands = equivalents(), os.cpu_count() or 1
    began = time.monotonic()
    with tempfile.TemporaryDirectory(prefix="mutants-") as folder:
        copies: queue.Queue[Path] = queue.Queue()
        for each in range(hands):
            copies.put(copied(Path(folder) / str(each)))
        there = Path(folder) / "0"
        print(f"{len(chosen)} mutants; the tests run once to see what covers what ...", flush=True)
        first = subprocess.run(
            [sys.executable, __file__, "watch", str(there)],
            cwd=there,
            env=os.environ | {"PYTHONPATH": os.pathsep.join(str(there / each) for each in ("core", "server", "tests"))},
        )
        if first.returncode:
            print("The tests fail as they stand: mend them first.")
            return 1
        data = CoverageData(str(there / "covered"))
        data.read()
        covered = Covered(data, json.loads((there / "seconds.json").read_text()), there)

        def one(mutant: Mutant) -> tuple[Mutant, str]:
            if (mutant.path, *mutant.change) in known:
                return mutant, "equivalent"
            copy = copies.get()
            try:
                return mutant, "killed" if killed(mutant, covered.tests(mutant), copy) else "lives"
            finally:
                copies.put(copy)

        return told(chosen, one, hands, began, covered)


def told(
    chosen: list[Mutant],
    one: Callable[[Mutant], tuple[Mutant, str]],
    hands: int,
    began: float,
    covered: Covered,
) -> int:
    """Run every mutant and print the table; 0 when enough were killed."""
    fates: dict[str, list[str]] = defaultdict(list)
    with ThreadPoolExecutor(hands) as pool:
        for mutant, fate in pool.map(one, chosen):
            fates[mutant.subject].append(fate)
            if fate == "lives":
                was, became = mutant.change
                place = f"{mutant.path.removeprefix(f'{CORE}/')}:{mutant.line}"
                print(f"lives  {place} ({len(covered.tests(mutant))} tests)\n  {was}\n  {became}", flush=True)
    enough, counted_all, killed_all = True, 0, 0
    for subject, ended in fates.items():
        counted, dead = len(ended) - ended.count("equivalent"), ended.count("killed")
        counted_all, killed_all = counted_all + counted, killed_all + dead
        enough &= dead >= EACH_KILLED * counted
        print(f"{subject:12} {dead:3} of {counted:3} killed, {ended.count('equivalent')} equivalent")
    enough &= killed_all >= ALL_KILLED * counted_all
    minutes = (time.monotonic() - began) / 60
    print(f"{killed_all} of {counted_all} killed ({killed_all / counted_all:.0%}) in {minutes:.0f} min")
    return 0 if enough else 1


if __name__ == "__main__":
    if sys.argv[1:2] == ["watch"]:
        watch(Path(sys.argv[2]))
    sys.exit(main())
