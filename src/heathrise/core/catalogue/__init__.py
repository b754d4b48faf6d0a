"""What can be bought or met: constructions, cable, access points, switches and the rest."""

from .drawing import DrawingStyle, Pen, drawing_style
from .loader import load_catalogue
from .models import (
    JACKETS,
    AirModel,
    CableModel,
    Catalogue,
    ClientModel,
    Construction,
    DeviceModel,
    FibreModel,
    Forgotten,
    InjectorModel,
    LabelSheet,
    OldGear,
    PartModel,
    PortGroup,
    PowerDemand,
    RadioModel,
    SiteKindModel,
    SwitchModel,
)
from .poe_classes import PoeClass, poe_rank
from .prices import FirmPrice, Item, Pack, Prices, items_of, priced_items
from .roles import ROLES, PortProfile, Role
from .rules import Figure, Rules, Used, Value, in_words

__all__ = [
    "JACKETS",
    "ROLES",
    "AirModel",
    "CableModel",
    "Catalogue",
    "ClientModel",
    "Construction",
    "DeviceModel",
    "DrawingStyle",
    "FibreModel",
    "Figure",
    "FirmPrice",
    "Forgotten",
    "InjectorModel",
    "Item",
    "LabelSheet",
    "OldGear",
    "Pack",
    "PartModel",
    "Pen",
    "PoeClass",
    "PortGroup",
    "PortProfile",
    "PowerDemand",
    "Prices",
    "RadioModel",
    "Role",
    "Rules",
    "SiteKindModel",
    "SwitchModel",
    "Used",
    "Value",
    "drawing_style",
    "in_words",
    "items_of",
    "load_catalogue",
    "poe_rank",
    "priced_items",
]
