"""Writing to the tape: answers, trials, remarks, strikes; and the states of the bench, mains and depth."""

from __future__ import annotations

from apps.errors import InvalidError, NotFoundError, NotNowError
from apps.jobs.models import Job
from apps.jobs.record import Record
from apps.jobs.services.parts import check_open, return_to_shelf, take_onto_tape
from apps.jobs.services.writing import Command, Writing, writing
from apps.people.permissions import Action
from apps.shelf.models import Part
from spindle.diagnosis.evidence.vocabulary import check_words
from spindle.diagnosis.given.case import Answer, Finding, Remark, Stock, Trial
from spindle.errors import CaseError
from spindle.faults.model import CANT_TELL
from spindle.formats.case_file import read_stock, write_stock, write_what
from spindle.job.prompts import power_hold
from spindle.words.bench import Depth, Mains
from spindle.words.witness import Witness


def add_answer(command: Command, answer: Answer) -> Job:
    """Log an answer. What the bench itself saw needs the mains state of its question, and opens the unit that far.

    Raises
    ------
    NotNowError
        If the mains state is not the one that the question needs, or power is held back.
    InvalidError
        If the drive's family has no such question or answer.
    """
    with writing(command, Action.BENCH, "answer", write_what(answer)) as write:
        if not write.is_replay:
            check_open(write)
            _check_words(answer, write)
            if answer.failed is not None and answer.failed > (answer.tries or 0):
                raise InvalidError("failed", f"{answer.failed} failures of {answer.tries or 0} tries: count again.")
            question = write.model.family_questions[answer.question]
            if answer.source is Witness.BENCH and answer.outcome != CANT_TELL:
                check_mains(write, question.mains)
                deepen(write, question.depth)
            write.append("answer", write_what(answer))
    return write.job


def add_trial(command: Command, trial: Trial) -> Job:
    """Log what a trial after one or more changes showed.

    Raises
    ------
    InvalidError
        If a change is no repair of this drive.
    """
    with writing(command, Action.BENCH, "trial", write_what(trial)) as write:
        if not write.is_replay:
            check_open(write)
            _check_words(trial, write)
            check_mains(write, Mains.LIVE)
            deepen(write, max(write.model.repairs[write.model.repair_index[c.repair]].depth for c in trial.changes))
            _take_what_was_fitted(write, trial)
            write.append("trial", write_what(trial))
    return write.job


def add_remark(command: Command, text: str) -> Job:
    """Log a remark: words for people, no weight."""
    with writing(command, Action.NOTE, "remark", {"text": text}) as write:
        if not write.is_replay:
            write.append("remark", {"text": text})
    return write.job


def add_part(command: Command, part: Stock) -> Job:
    """Note a part for this job that is at hand, a donor's or on its way: the advice reckons with it until the line is struck.

    Raises
    ------
    InvalidError
        If its repair is none of this drive's, or takes no part.
    """
    body = write_stock(part)
    with writing(command, Action.BENCH, "part", body) as write:
        if not write.is_replay:
            check_open(write)
            try:
                read_stock(body, "", write.model.sheet)
            except CaseError as error:
                raise InvalidError(error.place, error.message) from error
            if part.repair not in write.model.repair_index:
                raise InvalidError("repair", f"{part.repair!r} cannot be done on this drive (see its sheet).")
            write.append("part", body)
    return write.job


def strike(command: Command, line: int, why: str) -> Job:
    """Strike a finding: its weight goes, the line stays."""
    with writing(command, Action.BENCH, "strike", {"line": line, "why": why}) as write:
        if not write.is_replay:
            if line not in write.record.standing_numbers:
                raise NotFoundError(f"Line {line} is no finding, or is struck already.")
            taken = write.record.parts.get(line)
            if taken is not None and taken.body.get("taking"):
                return_to_shelf(write, taken, {})
            write.append("strike", {"line": line, "why": why})
    return write.job


def restore(command: Command, line: int) -> Job:
    """Let a struck finding stand again."""
    with writing(command, Action.BENCH, "restore", {"line": line}) as write:
        if not write.is_replay:
            if line not in write.record.strikes:
                raise NotFoundError(f"Line {line} is not struck.")
            struck = next(x for x in write.record.lines if x.number == line)
            if struck.body.get("taking"):  # the piece went back on the shelf meanwhile: it is taken anew, if it is still there
                take_onto_tape(write, struck.body["item"], struck.body["repair"])
                return write.job
            write.append("restore", {"line": line})
    return write.job


def set_mains(command: Command, *, is_live: bool) -> Job:
    """Say that the mains is live or out.

    Raises
    ------
    NotNowError
        If power is held back: something rattles inside.
    """
    with writing(command, Action.BENCH, "mains", {"is_live": is_live}) as write:
        if not write.is_replay and write.job.is_live != is_live:
            if is_live:
                _check_power(write.record)
            write.job.is_live = is_live
            write.append("mains", {"is_live": is_live})
    return write.job


def set_depth(command: Command, depth: Depth) -> Job:
    """Say how far the unit is open now. Opening needs the mains out.

    Raises
    ------
    NotNowError
        If it is to be opened further while live.
    """
    with writing(command, Action.BENCH, "depth", {"depth": int(depth)}) as write:
        if not write.is_replay and write.job.depth != depth:
            if depth > write.job.depth:
                check_mains(write, Mains.OUT)
            write.job.depth = int(depth)
            write.append("depth", {"depth": int(depth)})
    return write.job


def check_mains(write: Writing, needed: Mains) -> None:
    """Refuse a step whose mains state is not the one on the bench.

    Raises
    ------
    NotNowError
    """
    if needed is Mains.LIVE:
        _check_power(write.record)
    if needed is Mains.LIVE and not write.job.is_live:
        raise NotNowError("This needs the mains live, and it is out. Set the mains state first.", reason="mains_out")
    if needed is Mains.OUT and write.job.is_live:
        raise NotNowError("This needs the mains out, and it is live. Pull the plug and set the mains state first.", reason="mains_live")


def deepen(write: Writing, depth: Depth) -> None:
    """Note that the unit is open at least that far: the step that was just done says so."""
    if depth > write.job.depth:
        write.job.depth = int(depth)
        write.append("depth", {"depth": int(depth)})


def _check_power(record: Record) -> None:
    why = power_hold(tuple(record.findings))
    if why:
        raise NotNowError(f"Mains stays out. {why}", reason="power_held")


def _take_what_was_fitted(write: Writing, trial: Trial) -> None:
    """A part of the shelf that was fitted without being taken first is taken now."""
    mine = {line.body["item"] for line in write.record.takings.values()}
    for change in trial.changes:
        if change.item and change.item not in mine and Part.objects.filter(tag=change.item).exists():
            take_onto_tape(write, change.item, change.repair)


def _check_words(what: Answer | Trial | Remark, write: Writing) -> None:
    try:
        check_words(Finding("new", what), write.model, "")
    except CaseError as error:
        raise InvalidError(error.place, error.message) from error
