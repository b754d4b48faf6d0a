"""What was observed, apart from what was decided: facts with a time and an author.

Records are appended and never changed; what a later one says of the same thing counts. They are
compared with the plan and are no part of it: undo does not touch them.
"""

from .air import AirHeard, RadioHeard, busiest_of
from .cables import PlannedCable, TestedCable, as_judged, cables_as_tested
from .clocks import OurTime, by_the_server, in_our_time
from .controlled import (
    BroughtTick,
    Drift,
    KeptBackup,
    Outcome,
    PushedStep,
    ReadBack,
    SerialMatched,
    kept_since,
    serials_as_matched,
    since_when,
    ticked,
    undone,
)
from .keys import KeyOf, KeySent, KeyShown, KeyWay
from .kinds import (
    MOST_READINGS,
    RECORD_KINDS,
    Agreed,
    CableResult,
    CableTest,
    HandedOver,
    MeasuredWalk,
    PortReading,
    Record,
    RecordKey,
    Signed,
    SnagRecord,
    SnagWords,
    StepRecord,
    StepState,
    StepWords,
    WalkCounts,
    says_the_same,
)
from .ports import PlannedPort, SeenPort, SwitchDraw, ports_as_seen, switches_as_seen
from .rounds import RoundBegun, RoundEnded
from .snags import Snag, snags_as_left
from .speeds import LINE, Occasion, PlannedSpeed, SeenSpeed, SpeedReading, speeds_as_seen
from .staging import Staged, bench_of, on_site_since
from .standing import Standing, standing
from .steps import StepStand, steps_as_done
from .walks import WalkTaken, walks_as_taken

__all__ = [
    "LINE",
    "MOST_READINGS",
    "RECORD_KINDS",
    "Agreed",
    "AirHeard",
    "BroughtTick",
    "CableResult",
    "CableTest",
    "Drift",
    "HandedOver",
    "KeptBackup",
    "KeyOf",
    "KeySent",
    "KeyShown",
    "KeyWay",
    "MeasuredWalk",
    "Occasion",
    "OurTime",
    "Outcome",
    "PlannedCable",
    "PlannedPort",
    "PlannedSpeed",
    "PortReading",
    "PushedStep",
    "RadioHeard",
    "ReadBack",
    "Record",
    "RecordKey",
    "RoundBegun",
    "RoundEnded",
    "SeenPort",
    "SeenSpeed",
    "SerialMatched",
    "Signed",
    "Snag",
    "SnagRecord",
    "SnagWords",
    "SpeedReading",
    "Staged",
    "Standing",
    "StepRecord",
    "StepStand",
    "StepState",
    "StepWords",
    "SwitchDraw",
    "TestedCable",
    "WalkCounts",
    "WalkTaken",
    "as_judged",
    "bench_of",
    "busiest_of",
    "by_the_server",
    "cables_as_tested",
    "in_our_time",
    "kept_since",
    "on_site_since",
    "ports_as_seen",
    "says_the_same",
    "serials_as_matched",
    "since_when",
    "snags_as_left",
    "speeds_as_seen",
    "standing",
    "steps_as_done",
    "switches_as_seen",
    "ticked",
    "undone",
    "walks_as_taken",
]
