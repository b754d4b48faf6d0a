"""Racks as things: elevation, frame, cords, heat, sound, battery, how they are held."""

from .arrange import Arrangement, Placed, arrange
from .assess import RackDraw, assess_racks
from .battery import good_batteries, judge_battery, kept_share, minutes
from .contents import SPLICE_PORTS, RackConverter, RackLoad
from .cords import FACE_MM, UNIT_MM, Patch, face_rows, height_mm, port_mm
from .findings import rack_findings
from .frame import meets_studs
from .heat import airflow_m3h, closet_c, heat_w, together_db
from .surroundings import clear_spot, heard
from .values import Battery, Closet, Cord, Elevation, Fixing, RackChapter, Shed, Thing

__all__ = [
    "FACE_MM",
    "SPLICE_PORTS",
    "UNIT_MM",
    "Arrangement",
    "Battery",
    "Closet",
    "Cord",
    "Elevation",
    "Fixing",
    "Patch",
    "Placed",
    "RackChapter",
    "RackConverter",
    "RackDraw",
    "RackLoad",
    "Shed",
    "Thing",
    "airflow_m3h",
    "arrange",
    "assess_racks",
    "clear_spot",
    "closet_c",
    "face_rows",
    "good_batteries",
    "heard",
    "heat_w",
    "height_mm",
    "judge_battery",
    "kept_share",
    "meets_studs",
    "minutes",
    "port_mm",
    "rack_findings",
    "together_db",
]
