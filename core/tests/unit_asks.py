"""Random asks about a unit that is opened, photographed and spoken of by its owner, for the laws of a job."""

from hypothesis import strategies as st
from spindle.bench.opening.mat import PlaceState
from spindle.bench.opening.steps import Kind
from spindle.diagnosis.given.economy import Economy
from spindle.job.kinds.account import AskAccount
from spindle.job.kinds.confirmed import ConfirmCause
from spindle.job.kinds.dots import MarkPhoto
from spindle.job.kinds.heard import Hear
from spindle.job.kinds.left_out import LeaveCheck
from spindle.job.kinds.opened import OpenStep
from spindle.job.kinds.owner_says import OwnerSays, OwnerWant
from spindle.job.kinds.photo import Moment, Photograph
from spindle.job.kinds.place import MarkPlace
from spindle.job.kinds.recorded import RecordStep, Whose
from spindle.job.kinds.retold import Retell, ToldEvent
from spindle.job.kinds.sound import Did, KeepSound
from spindle.job.recordings import Dot
from spindle.job.state import state_of
from spindle.sound.kinds import Kind as EventKind
from spindle.words.known import Known


def unit_asks(data, job, pick):
    """An ask of each of these kinds, drawn when it is called."""
    flag = lambda: data.draw(st.booleans())  # noqa: E731
    steps, repairs = [*job.opening.steps, *job.mat.open, "drive:Wing"], [r.id for r in job.model.repairs]
    depths = ["", "cover off", "drive open"]
    checks = [*(c.id for c in state_of(job, Economy()).checks), "dance"]
    return {
        AskAccount: lambda: AskAccount("a system update", "Wenna", flag()),
        LeaveCheck: lambda: LeaveCheck(pick(checks), "it is not here"),
        OpenStep: lambda: OpenStep(pick(steps), flag()),
        MarkPlace: lambda: MarkPlace(pick(["drive:rear#1", "drive:rear#2", "x"]), pick(PlaceState), "lost", pick([8.0, 12.0]), pick([3.0, 2.0])),
        RecordStep: lambda: RecordStep(pick(Whose), pick(["Cover", "Flex", "Roof"]), pick([Kind.CLIP, Kind.LIFT]), opens_to=pick(depths)),
        Photograph: lambda: Photograph(pick(["a", "b"]), pick(["", *steps]), pick(Moment), for_owner=flag()),
        MarkPhoto: lambda: MarkPhoto(pick([*job.photos, 1]), pick([(), (Dot(1.0, 2.0, "seal"),)])),
        KeepSound: lambda: KeepSound(pick(["a", "b", "c"]), pick(Did), "shop disc", pick(["", "on", "off"]), "left post", flag()),
        Retell: lambda: Retell(pick([*job.sounds, 1]), pick([(), (ToldEvent(EventKind.TICKING, 3.0, 4.5),), (ToldEvent(EventKind.CHIRP, 4.0, 99.0),)])),
        Hear: lambda: Hear(
            pick([*job.sounds, 1]), pick(["spins", "sled_sound", "load_sound"]), pick(["cycles", "holds", "seeks", "hammers", "smooth"]), flag()
        ),
        ConfirmCause: lambda: ConfirmCause(pick(Known), pick(["", "lens_dirty", "nothing_wrong", "not_listed"])),
        OwnerSays: lambda: OwnerSays(pick(OwnerWant), "Wenna", "by phone", "hm", pick(["", *repairs])),
    }
