"""The head of a paper: whose it is."""

from __future__ import annotations

import base64
from dataclasses import dataclass, field

from ...core.context.firm import Firm


@dataclass(frozen=True)
class Head:
    """The firm as a paper's head shows it; ``mark`` is its picture as a data address."""

    firm: Firm = field(default_factory=Firm)
    mark: str = ""

    @classmethod
    def of(cls, firm: Firm, media: str = "", picture: bytes = b"") -> Head:
        data = base64.b64encode(picture).decode("ascii")
        return cls(firm, f"data:{media};base64,{data}" if picture else "")


NO_HEAD = Head()
