"""What is asked for and is not there."""

from __future__ import annotations


class Unknown(LookupError):
    """There is none of this id; ``what`` says of which kind."""

    what = "thing"
