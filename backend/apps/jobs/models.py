"""Jobs and their tape, and what of the shelf is with them. The tape is append-only, and the database itself refuses anything else."""

from __future__ import annotations

from datetime import date
from typing import Final

from apps.drives.models import BODY, Sheet
from apps.shelf.models import Part
from django.conf import settings
from django.db import models
from django.db.models import F, Q
from spindle.job.stages import Acts, Stage
from spindle.words.bench import Depth, Power

VOIDED: Final = "Voided: "
"""How the outcome of a job begins that was taken in by mistake; its reason follows."""


SHEETS_BODY: Final = tuple(f"sheet__{name}" for name in BODY)
"""What nobody reads of a job's sheet by its row: it is a hundred times the row, and the rules have it by its number."""
HEAVY: Final = (*SHEETS_BODY, "past", "judged", "tried", "bridged")
"""What a list of jobs never shows."""


class Job(models.Model):
    """One unit in the house. What happened is on its tape; what is kept here is where it stands by that, for lists and searches."""

    tag = models.CharField(max_length=12, unique=True)
    sheet = models.ForeignKey(Sheet, on_delete=models.PROTECT)
    owner_name = models.CharField(max_length=120)
    owner_contact = models.CharField(max_length=160)
    complaint = models.TextField(max_length=2_000)
    condition = models.JSONField(default=dict)
    limit_cents = models.PositiveIntegerField(null=True)
    supply = models.CharField(max_length=120)
    promised_on = models.DateField(null=True)
    taken_in_at = models.DateTimeField()
    stage = models.CharField(max_length=20, default=Stage.TAKEN_IN.value)
    depth = models.PositiveSmallIntegerField(default=int(Depth.CLOSED))
    power = models.CharField(max_length=8, default=Power.OUT.value)
    version = models.PositiveIntegerField(default=0)
    waits_for = models.TextField(default="")
    """What it waits for, in a sentence; made anew with every write, and by ``manage.py rebuild_jobs``."""
    tried = models.JSONField(default=list)
    """Every standing trial of one repair alone: [repair, whether it came out clean]. Made anew with every write."""
    bridged = models.JSONField(default=list)
    """Which of the unit's lid switches are bridged, by the repair that did it, those of earlier jobs among them. Made anew with every write."""
    judged = models.JSONField(default=list)
    """Every proposed repair that was tried: [repair, how likely it was said to cure, whether the advice put it first, whether it came out clean]."""
    past = models.JSONField(null=True)
    """What it teaches, as it closed (:mod:`spindle.learning.past`); None while it is open, and where nothing can be learnt of it."""
    kept_as = models.PositiveSmallIntegerField(default=0)
    """By which rules what is kept here was made (:data:`apps.jobs.services.writing.KEPT_AS`): by older ones it is made anew at the next start."""
    offered_cents = models.PositiveIntegerField(null=True)
    """What the first repair was offered for; None where none was."""
    paid_cents = models.PositiveIntegerField(null=True)
    """What was paid; None where nobody wrote it down."""
    acts = models.CharField(max_length=8, default=Acts.COUNTER.value)
    """Who must act next, a part that is not here left out."""
    hands = models.CharField(max_length=160, blank=True)
    """Who wrote to it last, by name."""
    held_until = models.DateTimeField(null=True)
    """Until when the bench waits for something that passes by itself."""
    closed_at = models.DateTimeField(null=True)
    outcome = models.CharField(max_length=60, blank=True)
    """How it came out, once it is closed; "voided" with its reason where it was taken in by mistake."""
    guarantee_until = models.DateField(null=True)
    returns = models.ForeignKey("self", on_delete=models.PROTECT, null=True, related_name="came_back")
    """The job after which this unit came back."""
    is_covered = models.BooleanField(default=False)
    """It came back with the same fault inside its guarantee."""

    class Meta:
        ordering = ("promised_on", "tag")
        constraints = (
            models.CheckConstraint(condition=Q(depth__lte=int(Depth.DECK_OUT)), name="depth_exists"),
            models.CheckConstraint(condition=Q(stage__in=[s.value for s in Stage]), name="stage_exists"),
        )
        indexes = (models.Index(fields=["stage", "promised_on"]), models.Index(fields=["closed_at"]))

    def __str__(self) -> str:
        """Return the tag."""
        return self.tag

    @property
    def is_void(self) -> bool:
        """True if it was taken in by mistake."""
        return self.outcome.startswith(VOIDED)

    def is_inside_guarantee(self, today: date) -> bool:
        """Tell whether the guarantee that it went home with has not ended yet: its last day is inside."""
        return self.guarantee_until is not None and today <= self.guarantee_until


class TapeLine(models.Model):
    """One thing that happened to a job: never changed, never deleted. Striking a line is a line of its own."""

    job = models.ForeignKey(Job, on_delete=models.PROTECT, related_name="lines")
    number = models.PositiveIntegerField()
    version = models.PositiveIntegerField()
    """The job's version that this line belongs to."""
    kind = models.CharField(max_length=12)
    body = models.JSONField()
    at = models.DateTimeField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)

    class Meta:
        ordering = ("job", "number")
        constraints = (
            models.UniqueConstraint(fields=["job", "number"], name="one_line_per_number"),
            models.CheckConstraint(condition=Q(version__gt=0) & Q(number__gte=F("version")), name="line_has_version"),
        )


class Taking(models.Model):
    """One piece that a line of a job's tape took from the shelf, until it is fitted for good or back."""

    part = models.ForeignKey(Part, on_delete=models.PROTECT, related_name="takings")
    job = models.ForeignKey(Job, on_delete=models.PROTECT, related_name="takings")
    line = models.PositiveIntegerField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField()
    ended = models.CharField(max_length=8, blank=True, choices=[("back", "back on the shelf"), ("fitted", "fitted for good")])

    class Meta:
        constraints = (models.UniqueConstraint(fields=["job", "line"], name="one_piece_per_line"),)
        indexes = (models.Index(fields=["job"], condition=Q(ended=""), name="open_takings"),)


class Want(models.Model):
    """What an open job waits for: the part of the repair that was proposed."""

    job = models.OneToOneField(Job, on_delete=models.CASCADE, related_name="want")
    repair = models.CharField(max_length=40)
    level = models.CharField(max_length=20, db_index=True)
    p_success = models.FloatField()
    since = models.DateTimeField()


class Custody(models.Model):
    """A part of an owner's that left its unit under a tag of its own; ``away_since`` is null once it is back."""

    part = models.OneToOneField(Part, on_delete=models.CASCADE, related_name="custody")
    job = models.ForeignKey(Job, on_delete=models.PROTECT, related_name="custody")
    away_since = models.DateTimeField(null=True)

    class Meta:
        indexes = (models.Index(fields=["job"], condition=Q(away_since__isnull=False), name="still_away"),)


class Presence(models.Model):
    """Somebody has a job on their screen."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="present")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE)
    at = models.DateTimeField()

    class Meta:
        constraints = (models.UniqueConstraint(fields=["job", "user"], name="present_once"),)


class Outlook(models.Model):
    """The deeper look at a job as it was last computed, kept for as long as what it rests on stays the same."""

    job = models.OneToOneField(Job, on_delete=models.CASCADE, related_name="outlook")
    rests_on = models.CharField(max_length=64)
    body = models.JSONField()


class WantedLook(models.Model):
    """A deeper look that somebody waits for. One a person: whoever asks again has given up the older one."""

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="wanted_look")
    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="wanted_looks")
    ticket = models.UUIDField()
    """Another one for each time that it is asked for."""
    at = models.DateTimeField()
    is_taken = models.BooleanField(default=False)
    """Somebody is at it already."""
