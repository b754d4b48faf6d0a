"""A stand-in for the controller of a site: an application of its own on loopback, with seeded faults."""

from .app import create_standin
from .site import FAULTS, Planted, SimulatedSite

__all__ = ["FAULTS", "Planted", "SimulatedSite", "create_standin"]
