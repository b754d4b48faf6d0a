"""Text without what no paper, table or drawing can show: control characters and broken pairs."""

from __future__ import annotations

import re
from collections.abc import Container, Mapping
from typing import Any

# What XML 1.0 has no place for, and the controls of ISO 6429; line ends and tabs are kept apart.
_UNSEEN = re.compile("[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x84\x86-\x9f\ud800-\udfff\ufffe\uffff]")
_BREAKS = re.compile("[\t\n\r\x85\u2028\u2029]+")


def plain(text: str) -> str:
    """Return a text with what cannot be shown taken out."""
    return text if text.isprintable() else _UNSEEN.sub("", text)


def plain_line(text: str) -> str:
    """Return a text on one line, with what cannot be shown taken out."""
    return text if text.isprintable() else _BREAKS.sub(" ", plain(text))


def plain_lines(text: str) -> str:
    """Return a text of several lines, each as it can be shown."""
    return "\n".join(plain_line(line) for line in re.split("\r\n|[\n\r\x85\u2028\u2029]", text))


def plain_values(data: Mapping[str, Any], lines: Container[str] = ()) -> dict[str, Any]:
    """Return data with its texts, and those in its lists, as lines that can be shown.

    Args:
        lines: keys of texts that may have several lines.
    """
    return {
        key: plain_lines(value) if key in lines and isinstance(value, str) else _plain_value(value)
        for key, value in data.items()
    }


def _plain_value(value: Any) -> Any:
    if isinstance(value, str):
        return plain_line(value)
    if isinstance(value, list | tuple) and any(isinstance(v, str) for v in value):
        return type(value)(plain_line(v) if isinstance(v, str) else v for v in value)
    return value
