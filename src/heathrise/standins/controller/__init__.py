"""A stand-in for the controller of a site: an application of its own on loopback, with seeded faults."""

from .app import create_standin
from .gear import FAULTS, Planted
from .site import SimulatedSite

__all__ = ["FAULTS", "Planted", "SimulatedSite", "create_standin"]
