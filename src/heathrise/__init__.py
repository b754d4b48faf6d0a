"""Heathrise: planning, checking and recording a multi-access-point installation."""

__version__ = "0.1.0"
