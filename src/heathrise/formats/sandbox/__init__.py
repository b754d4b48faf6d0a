"""Readers of files that nobody vouches for, each run in a process of its own within limits."""
