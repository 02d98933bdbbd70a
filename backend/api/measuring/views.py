"""Views of the calculators, without a rule."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from api.measuring import schemas as s
from apps.jobs.readings import ReadBefore
from apps.jobs.selectors import OpenJob
from apps.shop.services.meters import Live
from devices.meter import in_words
from spindle.bench.run_chart import RunChart
from spindle.bench.tools.belts import BELT, AtHand, with_shelf
from spindle.bench.tools.catalogue import TOOLS
from spindle.bench.tools.fields import Field
from spindle.bench.tools.told import Speaks, Told, Tool
from spindle.bench.verdict import Verdict
from spindle.errors import InputsError, InvalidError
from spindle.faults.cautions import CAUTIONS
from spindle.faults.model import Question


def tool_views(shown: OpenJob | None, belts: Sequence[AtHand]) -> list[s.ToolView]:
    """Return every calculator; where a job is given, those that its drive has something for, with what its sheet says and which belts lie on the shelf."""
    return [tool_view(t, shown, belts) for t in TOOLS.values() if shown is None or t.is_for(shown.unit.drive.features, shown.job.model.questions)]


def tool_view(tool: Tool, shown: OpenJob | None, belts: Sequence[AtHand]) -> s.ToolView:
    """Return one calculator."""
    on_this = set(tool.questions) if shown is None else set(tool.questions) & set(shown.job.model.questions)
    told = [] if shown is None else tool.prefill(shown.unit)
    starts = [s.StartView(name=x.name, inputs=x.inputs, question=x.question) for x in (with_shelf(told, belts) if tool is BELT else told)]
    return s.ToolView(id=tool.id, title=tool.title, about=tool.about, fields=[_field(f) for f in tool.fields], questions=sorted(on_this), starts=starts)


def _field(field: Field) -> s.FieldView:
    return s.FieldView(
        id=field.id,
        name=field.name,
        kind=field.kind,
        quantity=field.quantity,
        unit=field.unit,
        choices=[s.ChoiceView(id=i, name=n) for i, n in field.choices],
        columns=[_field(c) for c in field.columns],
        optional=field.optional,
        hint=field.hint,
        each_time=field.each_time,
        start=str(field.start or ""),
    )


def calculation_view(tool: Tool, inputs: Mapping[str, object], shown: OpenJob | None) -> s.CalculationView:
    """Return the answer to inputs, or what is wrong with them."""
    try:
        return s.CalculationView(told=told_view(tool.answer(inputs), shown), faults=[])
    except InputsError as error:
        return s.CalculationView(told=None, faults=[s.FaultView(place=place, text=text) for place, text in error.faults])
    except InvalidError as error:
        return s.CalculationView(told=None, faults=[s.FaultView(place=str(error.params["place"]), text=error.message)])


def told_view(told: Told, shown: OpenJob | None) -> s.CalculatedView:
    """Return an answer; what it says to questions that this drive has is said in their words."""
    asked: Mapping[str, Question] = {} if shown is None else shown.job.model.questions
    return s.CalculatedView(
        headline=told.headline,
        verdict=_verdict(told.verdict),
        verdict_said=told.verdict.said if told.verdict is not None else "",
        reasons=[s.ReasonView(verdict=_verdict(r.verdict), text=r.text) for r in told.reasons],
        numbers=[s.NumberView.model_validate(n) for n in told.numbers],
        notes=list(told.notes),
        cautions=[s.ToldCautionView.model_validate(CAUTIONS[c]) for c in told.cautions],
        picture=dict(told.picture),
        speaks=[_speaks(x, asked[x.question]) for x in told.speaks if x.question in asked],
        may_power=told.may_power,
        mains=told.mains.value,
        next_rows={k: dict(v) for k, v in told.next_rows.items()},
    )


def _verdict(verdict: Verdict | None) -> str:
    return "" if verdict is None else verdict.name.lower()


def _speaks(speaks: Speaks, question: Question) -> s.SpeaksView:
    answers = [s.ShareView(outcome=o.id, label=o.label, share=speaks.weights.get(o.id, 0.0)) for o in question.outcomes]
    return s.SpeaksView(question=question.id, ask=question.ask, answers=answers)


def measured_views(shown: OpenJob) -> list[s.MeasuredView]:
    """Return what was measured on a job, newest first."""
    job = shown.job
    lines = [line for line in reversed(job.lines) if line.kind == "measured"]
    return [
        s.MeasuredView(
            line=line.number,
            tool=line.body["tool"],
            title=TOOLS[line.body["tool"]].title,
            about=line.body["about"],
            headline=line.body["headline"],
            numbers=[s.NumberView(name=name, text=text) for name, text in line.body["numbers"]],
            inputs=dict(line.body["inputs"]),
            is_struck=line.number in job.struck,
            at=line.at.isoformat(),
            by=line.by,
        )
        for line in lines
    ]


def run_view(found: list[ReadBefore], chart: RunChart | None, quantity: str) -> s.RunView:
    """Return the same points over time, and what they say together."""
    if chart is None:
        return s.RunView(readings=[], says="", median=None, low=None, high=None)
    readings = [s.ReadBeforeView.model_validate(r) for r in found]
    return s.RunView(readings=readings, says=chart.says(quantity), median=chart.median, low=chart.low, high=chart.high)


def taken_view(live: Live) -> s.TakenView:
    """Return one reading as it comes."""
    return s.TakenView(
        value=live.taken.text, shown=in_words(live.taken), holds=live.holds, **{n: live.accuracy.get(n) for n in ("pct", "digits", "resolution", "leads_ohm")}
    )
