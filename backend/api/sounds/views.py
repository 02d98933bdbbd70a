"""Views of recordings, without a rule."""

from __future__ import annotations

from api.sounds import schemas as s
from apps.jobs.listening import Offered, ShownSound, shown_sounds
from apps.jobs.selectors import OpenJob
from apps.sounds.services import CLOSED_DAYS
from spindle.job.kinds.sound import DID_WORDS
from spindle.job.sounds import in_words
from spindle.sound.answers import sure_words
from spindle.sound.kinds import KIND_WORDS, LANE_WORDS, LANES, Event
from spindle.sound.words import measured_words


def sounds_view(shown: OpenJob) -> s.SoundsView:
    """Return the recordings of a job."""
    return s.SoundsView(
        sounds=[_sound(x, shown) for x in shown_sounds(shown)],
        lanes=[s.LaneView(id=lane, name=LANE_WORDS[lane], kinds=[s.SoundChoiceView(id=k, name=KIND_WORDS[k]) for k in kinds]) for lane, kinds in LANES.items()],
        did=[s.SoundChoiceView(id=d, name=words[0].upper() + words[1:]) for d, words in DID_WORDS.items()],
        kept=f"A recording stays with its job, and goes {CLOSED_DAYS} days after the job is closed. What was heard stays on the tape; references stay.",
    )


def _sound(x: ShownSound, shown: OpenJob) -> s.SoundView:
    sound, heard = x.sound, x.sound.heard
    return s.SoundView(
        line=sound.line,
        hash=sound.hash,
        did=sound.did,
        disc=sound.disc,
        microphone=sound.microphone,
        length_s=sound.length_s,
        grade=heard.quality.grade,
        reasons=list(heard.quality.reasons),
        at=sound.at,
        by=sound.by,
        retold=sound.retold,
        is_here=x.is_here,
        is_reference=x.is_reference,
        is_older=x.is_older,
        picture_from_s=heard.from_s,
        picture_to_s=heard.to_s,
        says=in_words(sound.events),
        events=[_event(e) for e in sound.events],
        offers=[_offer(o, shown) for o in x.offered],
        compared=[s.ComparedView.model_validate(c) for c in x.compared],
    )


def _event(event: Event) -> s.SoundEventView:
    return s.SoundEventView(
        kind=event.kind,
        name=KIND_WORDS[event.kind],
        lane=event.lane,
        start_s=event.start_s,
        end_s=event.end_s,
        sureness=sure_words(event.p),
        says=measured_words(event),
    )


def _offer(x: Offered, shown: OpenJob) -> s.OfferView:
    offer, question = x.offer, shown.job.model.family_questions[x.offer.question]
    outcome = question.outcome(offer.outcome) if offer.outcome else None
    names = {p.id: p.name for p in shown.job.model.parts}
    return s.OfferView(
        question=offer.question,
        ask=question.ask,
        outcome=offer.outcome,
        says=outcome.line if outcome else "Can’t tell",
        sureness=offer.sureness,
        why=offer.why,
        from_s=min((e.start_s for e in offer.rests_on), default=None),
        moves=[s.OfferedMoveView(part=m.part, name=names[m.part], db=m.db) for m in x.moves],
        taken=x.taken,
        seen=x.seen,
        answers=[s.SoundChoiceView(id=o.id, name=o.label) for o in question.outcomes],
    )
