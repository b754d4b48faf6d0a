"""How a device can be mounted."""

from typing import Literal

Mount = Literal["ceiling", "wall", "desk", "pole"]
