"""What the owner's story and the first glance tell, before anything is switched on."""

from __future__ import annotations

from typing import Final

from spindle.faults.model import Mains, Outcome, Question, QuestionKind, Row
from spindle.faults.shared.groups import GAME_DIODE, SLED

INTAKE: Final = (
    Question(
        "opened_before",
        QuestionKind.INTAKE,
        "Has somebody been inside already?",
        "Seals, scratched screw heads, a screw too few, hand marks.",
        (Outcome("sealed", "No sign of it", "No sign of an earlier attempt"), Outcome("opened", "Yes, or likely", "Signs of an earlier attempt")),
        (
            Row("*", (72, 28), "about a quarter of our units have been opened by somebody"),
            Row("lens_dirty", (80, 20), "who opens it cleans the lens first, so dirt is less likely to be left"),
            Row("trimmer_off", (6, 94), "a trimmer moves by hand"),
            Row("wrong_board", (2, 98), "boards do not change by themselves"),
            Row("flex_pickup_loose flex_board_loose bridge_on flex_one_over", (28, 72), "left half in, or left on, on closing"),
            Row("flex_pickup_torn hub_slipped connector_joint", (52, 48), "hurt on opening"),
            Row("not_listed", (56, 44), "two faults at once"),
        ),
        bench_min=1,
        mains=Mains.ANY,
    ),
    Question(
        "rattle",
        QuestionKind.INTAKE,
        "Mains out, tilt it gently: does anything rattle?",
        "Both ways, over the table. A rattle holds back every step that needs power until it is found.",
        (Outcome("silent", "Nothing", "Nothing rattles"), Outcome("rattles", "Something moves", "Something rattles inside")),
        (Row("*", (94, 6), "a loose screw from an earlier attempt"), Row("foreign_object", (48, 52), "half of them are held by a magnet or wedged")),
        bench_min=0.5,
        mains=Mains.OUT,
    ),
    Question(
        "shipped",
        QuestionKind.INTAKE,
        "Was it dropped or shipped just before?",
        "Box, corners, sender's label. A story, and weighs as one.",
        (Outcome("no", "No", "Not dropped or shipped before the fault"), Outcome("yes", "Yes", "Dropped or shipped before the fault")),
        (
            Row("*", (85, 15), "one in seven comes by parcel, and was ill before"),
            Row("pickup_dead hub_slipped pickup_tilt", (52, 48), "a knock reaches wires, hub and rods"),
            Row("flex_pickup_loose flex_board_loose @loading", (68, 32), "plugs walk, gears jump"),
            Row("driver_joint connector_joint", (76, 24), "a brittle joint gives way"),
            Row(f"diode:game {SLED} lens_dirty fuse_open", (89, 11), "wear needs no knock"),
        ),
        bench_min=0.5,
    ),
    Question(
        "other_supply",
        QuestionKind.INTAKE,
        "Is the owner using another power supply or adapter than the console's own?",
        "Look at the label of what came with it; ask what it hangs on at home.",
        (Outcome("own", "Its own", "Owner uses the console's own supply"), Outcome("other", "Another one", "Owner uses another power supply")),
        (
            Row("*", (94, 6), "some do, and it is sound"),
            Row("fuse_open", (70, 30), "a wrong voltage is the usual reason"),
            Row("supply_weak", (58, 42), "too weak for the spin-up"),
            Row("driver_chip caps_leak", (86, 14), "hurt by the same surge"),
        ),
        bench_min=0.5,
    ),
    Question(
        "batch_alike",
        QuestionKind.INTAKE,
        "Have other units of this model come in with the same trouble?",
        "From the shop's own record. Two failing alike speak for the usual wear of that model, not for a rare part twice.",
        (Outcome("no", "No, or the first", "No other unit of the model failed alike"), Outcome("yes", "Yes, alike", "Other units of the model failed alike")),
        (
            Row("*", (86, 14), "chance"),
            Row(f"{GAME_DIODE} lens_dirty {SLED} @margin", (56, 44), "what wears with hours wears alike"),
            Row("driver_joint caps_leak spindle_motor", (66, 34), "a weak design shows in all"),
            Row(
                "wrong_board bridge_on flex_one_over foreign_object trimmer_off hub_slipped pickup_dead", (96, 4), "accidents and hands do not come in batches"
            ),
        ),
        bench_min=0.5,
    ),
    Question(
        "smoky_home",
        QuestionKind.INTAKE,
        "Smoke film or heavy dust on the outside?",
        "A white cloth over the vents. It says where it lived, not what failed.",
        (Outcome("clean", "Clean", "Outside clean"), Outcome("film", "Film or heavy dust", "Smoke film or heavy dust outside")),
        (
            Row("*", (64, 36), "a third of all homes"),
            Row("lens_dirty", (52, 48), "the film is on the lens too"),
            Row("rails_dry", (58, 42), "dust binds grease"),
        ),
        bench_min=0.5,
    ),
    Question(
        "came_slowly",
        QuestionKind.INTAKE,
        "Did it come slowly, or from one day to the next?",
        "Ask: which discs went first, since when. The owner's memory, and weighs as one.",
        (Outcome("slowly", "Slowly, over weeks", "Fault came slowly"), Outcome("sudden", "From one day to the next", "Fault came from one day to the next")),
        (
            Row("*", (34, 66), "most parts that break, break"),
            Row(f"diode:game diode:other lens_dirty {SLED} @margin spindle_motor caps_leak", (68, 32), "wear and dirt come by degrees"),
            Row("fuse_open foreign_object wrong_board bridge_on flex_one_over pickup_dead", (10, 90), "an event"),
            Row("not_listed", (46, 54), "kept flat"),
        ),
        bench_min=0.5,
    ),
)
