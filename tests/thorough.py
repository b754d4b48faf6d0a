"""How long the tests look: quickly by default, at great length with ``HYPOTHESIS_PROFILE=thorough``."""

from __future__ import annotations

import os

from hypothesis import HealthCheck, settings

PROFILE = os.environ.get("HYPOTHESIS_PROFILE", "quick")
THOROUGH = PROFILE == "thorough"
_SHARE = 5  # so many times fewer examples in a quick look
_LEAST = 6
_QUICK = 50  # where a property does not say

for _name, _many in (("quick", _QUICK), ("thorough", 100)):
    settings.register_profile(
        _name, max_examples=_many, deadline=None, suppress_health_check=[HealthCheck.too_slow]
    )
settings.load_profile(PROFILE)


def examples(many: int, *but: HealthCheck) -> settings:
    """Return the settings of a property that is tried on so many examples when looked at at length.

    Args:
        but: what else of its examples is as it should be, large ones for instance.
    """
    quick = min(many, max(_LEAST, many // _SHARE))
    checks = [HealthCheck.too_slow, *but]
    return settings(max_examples=many if THOROUGH else quick, suppress_health_check=checks)


def count(many: int, quick: int) -> int:
    """Return how many of something are tried."""
    return many if THOROUGH else quick
