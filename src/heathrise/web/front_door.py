"""The server's front door: who is let in, how much may be sent, how long it may take.

A request for another host is turned away, and one that is too large, before its body is taken in.
A client that leaves requests half sent loses those that it began first.
"""

from __future__ import annotations

import time
from typing import Any

from waitress.channel import HTTPChannel
from waitress.parser import HTTPRequestParser, ParsingError
from waitress.server import create_server

LOOPBACK_NAMES = {"127.0.0.1", "localhost", "[::1]"}
MAX_BODY_BYTES = 32_000_000
THREADS = 12
CONNECTIONS = 512
MOST_WAITING = 64  # connections of one client on which no whole request has come
IDLE_SECONDS = 30
CLEANUP_SECONDS = 5
NOT_HERE = "This server answers on loopback only: ask for 127.0.0.1 or localhost."


def host_name(host: str) -> str:
    """Return the name of a Host header without its port."""
    return host.rsplit(":", 1)[0] if ":" in host else host


class _Parser(HTTPRequestParser):  # type: ignore[misc]
    def parse_header(self, header_plus: bytes) -> None:
        super().parse_header(header_plus)
        host = self.headers.get("HOST")
        if host is not None and host_name(host) not in LOOPBACK_NAMES:
            raise ParsingError(NOT_HERE)


class _Channel(HTTPChannel):  # type: ignore[misc]
    parser_class = _Parser
    last_activity: float
    _began = 0.0

    def __init__(self, server: Any, sock: Any, addr: Any, *more: Any, **named: Any) -> None:
        super().__init__(server, sock, addr, *more, **named)
        waiting = [
            channel
            for channel in server.active_channels.values()
            if channel is not self and not channel.requests and channel.addr[0] == addr[0]
        ]
        if len(waiting) > MOST_WAITING:
            oldest = min(waiting, key=lambda channel: channel.last_activity)
            oldest.will_close = True

    def received(self, data: bytes) -> bool:
        if self.request is None:
            self._began = time.time()
        done = super().received(data)
        if self.request is not None:
            # A request that comes in drops is not activity: its time runs from its first byte.
            self.last_activity = self._began
        return bool(done)


def make_server(app: Any, port: int) -> Any:
    """Return a server for ``app`` on loopback; ``run`` serves until it is ended."""
    server = create_server(
        app,
        host="127.0.0.1",
        port=port,
        threads=THREADS,
        ident=None,
        clear_untrusted_proxy_headers=True,
        connection_limit=CONNECTIONS,
        channel_timeout=IDLE_SECONDS,
        cleanup_interval=CLEANUP_SECONDS,
        max_request_body_size=MAX_BODY_BYTES,
        backlog=CONNECTIONS,
    )
    server.channel_class = _Channel
    return server
