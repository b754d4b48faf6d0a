"""The network drawn: from the line to the last device, derived, in four readings, laid out by itself."""

from .graph import diagram_of
from .layout import ROWS_AT_ONCE, lay_out
from .seen import as_it_came, rack_of
from .values import READINGS, Card, Diagram, FrameBox, Joint, Node, Picture, Reading, Second, Shape

__all__ = [
    "READINGS",
    "ROWS_AT_ONCE",
    "Card",
    "Diagram",
    "FrameBox",
    "Joint",
    "Node",
    "Picture",
    "Reading",
    "Second",
    "Shape",
    "as_it_came",
    "diagram_of",
    "lay_out",
    "rack_of",
]
