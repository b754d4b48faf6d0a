"""Long work: what can be asked for, who runs it, and where its progress is kept."""

from .kinds import KINDS, Work
from .runner import EmbeddedRunner, Runner, Stopped

__all__ = ["KINDS", "EmbeddedRunner", "Runner", "Stopped", "Work"]
