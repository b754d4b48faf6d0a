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
from .poe_classes import POE_CLASSES, POE_SOURCE, PoeClass, poe_rank

__all__ = [
    "POE_CLASSES",
    "POE_SOURCE",
    "AccessPointModel",
    "CableModel",
    "CameraModel",
    "Catalogue",
    "ClientModel",
    "Construction",
    "InjectorModel",
    "OutletModel",
    "PoeClass",
    "PortGroup",
    "PowerDemand",
    "RadioModel",
    "SwitchModel",
    "WiredModel",
    "load_catalogue",
    "poe_rank",
]
