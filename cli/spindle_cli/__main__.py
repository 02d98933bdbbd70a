"""``./spindle diagnose CASE.json`` and ``./spindle vocabulary``: JSON out; a bad file gives one line and exit code 2."""

from __future__ import annotations

import argparse
import json
import sys
from pathlib import Path
from typing import Final

from spindle.casefile.case import read_case
from spindle.diagnosis.compiled import compile_model
from spindle.diagnosis.diagnose import diagnose
from spindle.errors import CaseError, SpindleError
from spindle_cli.written import diagnosis_json, vocabulary_json

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


def main(argv: list[str] | None = None) -> int:
    """Run the command; return its exit code."""
    parser = argparse.ArgumentParser(prog="spindle", description="The diagnosis of a disc drive bench case.")
    commands = parser.add_subparsers(dest="command", required=True)
    one = commands.add_parser("diagnose", help="suspects, weights and next moves of a case file, as JSON")
    one.add_argument("case", type=Path, metavar="CASE.json")
    commands.add_parser("vocabulary", help="every finding, answer, test, repair and fault with its id, as JSON")
    arguments = parser.parse_args(argv)
    try:
        if arguments.command == "vocabulary":
            answer: object = vocabulary_json()
        else:
            case = read_case(_load(arguments.case))
            model = compile_model(case.sheet)
            answer = diagnosis_json(diagnose(case, model), model)
    except SpindleError as error:
        sys.stderr.write(f"spindle: {error.message}\n")
        return 2
    sys.stdout.write(json.dumps(answer, indent=1, ensure_ascii=False) + "\n")
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
