"""Long work: what can be asked for, who runs it, and where its progress is kept."""

from .context import run_kind
from .kinds import KINDS, JobContext, Stopped
from .runner import EmbeddedRunner, Runner

__all__ = ["KINDS", "EmbeddedRunner", "JobContext", "Runner", "Stopped", "run_kind"]
