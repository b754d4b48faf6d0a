"""What can be bought or met: constructions, cable, access points, switches and the rest."""

from .loader import load_catalogue
from .models import (
    AccessPointModel,
    CableModel,
    CameraModel,
    Catalogue,
    ClientModel,
    Construction,
    InjectorModel,
    OutletModel,
    PortGroup,
    PowerDemand,
    RadioModel,
    SwitchModel,
    WiredModel,
)
from .poe_classes import PoeClass, poe_rank
from .rules import Figure, Rules, Used, Value, in_words

__all__ = [
    "AccessPointModel",
    "CableModel",
    "CameraModel",
    "Catalogue",
    "ClientModel",
    "Construction",
    "Figure",
    "InjectorModel",
    "OutletModel",
    "PoeClass",
    "PortGroup",
    "PowerDemand",
    "RadioModel",
    "Rules",
    "SwitchModel",
    "Used",
    "Value",
    "WiredModel",
    "in_words",
    "load_catalogue",
    "poe_rank",
]
