"""What is done on the site: labels for both ends of every cable."""

from .labels import Cabled, Label, far_end, labels_of

__all__ = ["Cabled", "Label", "far_end", "labels_of"]
