"""Jobs and their tape. The tape is append-only, and the database itself refuses anything else (migration 0002)."""

from __future__ import annotations

from apps.drives.models import Sheet
from django.conf import settings
from django.db import models
from django.db.models import F, Q
from spindle.job.stages import NAMES, Stage
from spindle.words.bench import Depth


class Job(models.Model):
    """One unit in the house. What happened is on its tape; what is kept here is where it stands now."""

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
    stage = models.CharField(max_length=20, choices=[(s.value, NAMES[s]) for s in Stage], default=Stage.TAKEN_IN.value)
    depth = models.PositiveSmallIntegerField(default=int(Depth.CLOSED))
    is_live = models.BooleanField(default=False)
    version = models.PositiveIntegerField(default=0)

    class Meta:
        ordering = ("promised_on", "tag")
        constraints = (
            models.CheckConstraint(condition=Q(depth__lte=int(Depth.DECK_OUT)), name="depth_exists"),
            models.CheckConstraint(condition=Q(stage__in=[s.value for s in Stage]), name="stage_exists"),
        )
        indexes = (models.Index(fields=["stage", "promised_on"]),)

    def __str__(self) -> str:
        """Return the tag."""
        return self.tag


class LineKind(models.TextChoices):
    """What a line of the tape says."""

    ANSWER = "answer", "Answer"
    TRIAL = "trial", "Trial"
    REMARK = "remark", "Remark"
    STRIKE = "strike", "Strike"
    RESTORE = "restore", "Restore"
    MAINS = "mains", "Mains"
    DEPTH = "depth", "Depth"
    STAGE = "stage", "Stage"
    PROPOSAL = "proposal", "Proposal"
    CONSENT = "consent", "Consent"
    STEP = "step", "Step"
    CHECK = "check", "Check"
    PASS = "pass", "Pass"
    INTAKE = "intake", "Intake"
    PART = "part", "Part"
    CUSTODY = "custody", "Custody"
    DRIVE = "drive", "Drive"


class TapeLine(models.Model):
    """One thing that happened to a job: never changed, never deleted. Striking a line is a line of its own."""

    job = models.ForeignKey(Job, on_delete=models.PROTECT, related_name="lines")
    number = models.PositiveIntegerField()
    version = models.PositiveIntegerField()
    """The job's version that this line belongs to."""
    kind = models.CharField(max_length=12, choices=LineKind)
    body = models.JSONField()
    at = models.DateTimeField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)

    class Meta:
        ordering = ("job", "number")
        constraints = (
            models.UniqueConstraint(fields=["job", "number"], name="one_line_per_number"),
            models.CheckConstraint(condition=Q(version__gt=0) & Q(number__gte=F("version")), name="line_has_version"),
        )
