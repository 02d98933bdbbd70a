"""``./spindle diagnose|vocabulary|measure|listen|practice|study|optimum``: JSON out; a bad file gives one line and exit code 2."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Callable
from pathlib import Path
from typing import Final

from spindle.bench.tools.catalogue import TOOLS
from spindle.diagnosis.explaining.diagnose import diagnose
from spindle.diagnosis.given.compiled import compile_model
from spindle.errors import CaseError, SpindleError
from spindle.faults.library import MODELS
from spindle.formats.case_file import read_case
from spindle.practice.learners import LEARNERS
from spindle.practice.lessons import LESSONS
from spindle.sound.listening import listen
from spindle.sound.wav import read_wav
from spindle.study.policies import POLICIES
from spindle.study.shops import SHOPS
from spindle.study.worlds import WORLDS
from spindle_cli.practice import practice
from spindle_cli.study import BENCH_MEASURES, MEASURES, Place, bench_study, optimum_study, study
from spindle_cli.written import diagnosis_json, heard_json, told_json, tools_json, vocabulary_json

MAX_BYTES: Final = 5_000_000


def _load(path: Path) -> object:
    try:
        if path.stat().st_size > MAX_BYTES:
            raise CaseError(str(path), f"larger than {MAX_BYTES} bytes")
        return json.loads(path.read_text(encoding="utf-8"), parse_constant=_no_constant)
    except OSError as error:
        raise CaseError(str(path), f"cannot be read: {error.strerror}") from error
    except UnicodeDecodeError as error:
        raise CaseError(str(path), f"is not UTF-8 at byte {error.start}") from error
    except json.JSONDecodeError as error:
        raise CaseError(f"{path}, line {error.lineno}, column {error.colno}", f"is not JSON: {error.msg}") from error
    except RecursionError as error:
        raise CaseError(str(path), "is nested too deeply") from error


def _no_constant(name: str) -> object:
    raise CaseError("the file", f"{name} is not a JSON number")


def _count(text: str) -> int:
    if not text.isdigit() or not 1 <= int(text) <= 1_000_000:
        raise argparse.ArgumentTypeError(f"expected a whole number from 1 to 1000000, got {text!r}")
    return int(text)


def _diagnose(arguments: argparse.Namespace) -> object:
    case = read_case(_load(arguments.case))
    model = compile_model(case.sheet)
    return diagnosis_json(diagnose(case, model, keep_going=(lambda: True) if arguments.deep else None), model)


def _measure(arguments: argparse.Namespace) -> object:
    if arguments.tool == "list":
        return tools_json()
    if arguments.file is None:
        raise CaseError("the command", f"measure {arguments.tool} needs a FILE.json with its inputs; `./spindle measure list` says which")
    return told_json(arguments.tool, TOOLS[arguments.tool].answer(_load(arguments.file)))


def _listen(arguments: argparse.Namespace) -> object:
    try:
        content = arguments.file.read_bytes()
    except OSError as error:
        raise CaseError(str(arguments.file), f"cannot be read: {error.strerror}") from error
    heard = listen(read_wav(content))
    families = [arguments.family] if arguments.family else list(MODELS)
    return heard_json(heard, {f: heard.answers(f, knocked_first=arguments.knocked) for f in families})


def _study(arguments: argparse.Namespace) -> object:
    if arguments.measure in BENCH_MEASURES:
        return bench_study(arguments.measure, cases=arguments.cases, seed=arguments.seed)
    return study(
        cases=arguments.cases,
        seed=arguments.seed,
        place=Place(arguments.world, arguments.shop),
        policies=arguments.policy or [p for p in POLICIES if p != "two_step"],
        families=arguments.family or list(MODELS),
        measure=arguments.measure,
        jobs=arguments.jobs,
    )


_ANSWERS: Final[dict[str, Callable[[argparse.Namespace], object]]] = {
    "diagnose": _diagnose,
    "vocabulary": lambda _: vocabulary_json(),
    "measure": _measure,
    "listen": _listen,
    "practice": lambda a: practice(a.lesson, a.seed, a.by),
    "study": _study,
    "optimum": lambda a: optimum_study(cases=a.cases, seed=a.seed, jobs=a.jobs),
}


def main(argv: list[str] | None = None) -> int:
    """Run the command; return its exit code."""
    shop = "The shop's own data: spindle export FILE.zip [--job TAG], spindle import FILE.zip (docs/formats/shop.md)."
    parser = argparse.ArgumentParser(prog="spindle", description="The diagnosis of a disc drive bench case.", epilog=shop)
    commands = parser.add_subparsers(dest="command", required=True)
    one = commands.add_parser("diagnose", help="suspects, weights and next moves of a case file, as JSON")
    one.add_argument("case", type=Path, metavar="CASE.json")
    one.add_argument("--deep", action="store_true", help="look two steps ahead instead of one (a tenth of a second more)")
    commands.add_parser("vocabulary", help="every finding, answer, test, repair and fault with its id, as JSON")
    measured = commands.add_parser("measure", help="the answer of a bench calculator to a file of inputs, as JSON; `measure list` says what each asks")
    measured.add_argument("tool", choices=["list", *TOOLS], metavar="TOOL")
    measured.add_argument("file", type=Path, nargs="?", metavar="FILE.json")
    listened = commands.add_parser("listen", help="the sounds in a WAV file of 16 bit, and what they say to a drive's questions, as JSON")
    listened.add_argument("file", type=Path, metavar="FILE.wav")
    listened.add_argument("--family", choices=sorted(MODELS), help="how the disc goes in; every family if left out")
    listened.add_argument("--knocked", action="store_true", help="somebody knocked twice on the case first")
    learnt = commands.add_parser("practice", help="a unit with something hidden in it, played in the terminal; with --by by a scripted learner, as JSON")
    learnt.add_argument("--lesson", choices=list(LESSONS), default="any_slot", help="which lesson; any slot drive if left out")
    learnt.add_argument("--seed", type=int, default=1, metavar="S", help="the same seed is the same unit")
    learnt.add_argument("--by", choices=list(LEARNERS), default=None)
    played = commands.add_parser("study", help="simulated units played by the planner and its rivals, as JSON")
    played.add_argument(
        "--shop", choices=list(SHOPS), default="study", help="what the shop has: " + "; ".join(f"{k}: {v.name.lower()}" for k, v in SHOPS.items())
    )
    played.add_argument("--world", choices=sorted(WORLDS), default="matched", help="like the planner's model, or unlike it in a stated way")
    played.add_argument("--policy", choices=sorted(POLICIES), action="append", help="may be given again; all but two_step if left out")
    played.add_argument("--family", choices=sorted(MODELS), action="append", help="may be given again; every family if left out")
    played.add_argument("--measure", choices=["games", *MEASURES, *BENCH_MEASURES], default="games", help="what to study; games by default")
    small = commands.add_parser("optimum", help="how far the planner ends from the exact optimum on small instances, as JSON")
    for command in (played, small):
        command.add_argument("--cases", type=_count, default=100, metavar="N", help="units for each family, or instances of each size")
        command.add_argument("--seed", type=int, default=1, metavar="S")
        command.add_argument("--jobs", type=_count, default=None, metavar="N", help="processes; one a core if left out")
    arguments = parser.parse_args(argv)
    try:
        answer = _ANSWERS[arguments.command](arguments)
    except SpindleError as error:
        sys.stderr.write(f"spindle: {error.message}\n")
        return 2
    if answer is not None:
        sys.stdout.write(json.dumps(answer, indent=1, ensure_ascii=False) + "\n")
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
