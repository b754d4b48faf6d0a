"""The adapter to a site's controller, over HTTP by the contract."""

from .adapter import Controller, ControllerError
from .contract import CONTRACT, About, Air, Client, Gear, Measured, Value

__all__ = ["CONTRACT", "About", "Air", "Client", "Controller", "ControllerError", "Gear", "Measured", "Value"]
