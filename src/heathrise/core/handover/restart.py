"""What to do after a power cut: in the order in which things have to come back."""

from __future__ import annotations

from collections.abc import Sequence

from ..catalogue import Rules


def after_a_power_cut(
    rules: Rules,
    line: str,
    router: str,
    switches: Sequence[tuple[str, str]],
    access_points: int,
    contact: str,
) -> list[str]:
    """Return the steps in plain words.

    Args:
        line: what ends the line.
        router: name of what leads out, or nothing where the line's own gear does.
        switches: names and places of the switches, those nearest the line first.
        access_points: how many there are.
        contact: who is called when it does not come back.
    """
    minutes = rules.table("handover.restart_minutes")
    wait = {key: f"{value:g}" for key, value in minutes.items()}
    steps = [f"Wait until {line} shows its steady light: up to {wait['line']} minutes."]
    if router:
        steps.append(f"Then {router} comes up by itself; nothing has to be pressed.")
    for name, place in switches:
        steps.append(f"{name} ({place}) takes up to {wait['switch']} minutes.")
    if access_points:
        many = f"The {access_points} access points" if access_points > 1 else "The access point"
        steps.append(f"{many} follow within {wait['access_point']} minutes, one after the other.")
    steps.append(
        "If something stays dark, switch off the socket of the rack, count to thirty, switch it "
        "on, and wait as above. Do not press reset buttons: they take the settings away."
    )
    call = (
        f"If it still does not come back, call: {contact}."
        if contact
        else ("If it still does not come back, call whoever installed it.")
    )
    steps.append(call)
    steps.append("Never open the electrical panel or the gear itself.")
    return steps
