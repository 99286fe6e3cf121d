"""The worker of the production server: it reads requests whole before a thread works on them.

A request that never ends, its head or its body, then costs a connection and no thread. Such
connections are closed after UNFINISHED seconds, and beyond MOST_WAITING from one address the one
that has waited longest makes room for the newest: nobody who sends nothing whole can keep others out.
gunicorn keeps the workers alive, waitress reads and answers.
"""

from __future__ import annotations

import json
import os
import time
from copy import copy
from typing import Any

from gunicorn.workers.base import Worker
from waitress import wasyncore
from waitress.adjustments import Adjustments
from waitress.channel import HTTPChannel
from waitress.parser import HTTPRequestParser
from waitress.server import TcpWSGIServer
from waitress.task import ErrorTask, ThreadedTaskDispatcher

UNFINISHED = 15.0
"""Seconds a request may take to arrive; a photograph of 1 MB over a poor radio link takes five."""
MOST_WAITING = 48
"""Connections of one address that may wait on what they send next, a worker. A browser opens six."""
THREADS = 6
ARCHIVE, MOST_ARCHIVE = "/api/archive", 2_000_000_000
STRIDE = 1_000_000
"""Whoever sends so many bytes within UNFINISHED seconds may go on: 70 kB a second."""


class PlainError(ErrorTask):  # type: ignore[misc]
    """What waitress refuses by itself (a broken head, far too long a body), as a problem."""

    def execute(self) -> None:
        """Answer in the API's own shape (RFC 9457)."""
        error = self.request.error
        do = "Nothing was changed. Ask again with a whole and shorter request."
        said = {
            "type": "about:blank",
            "title": error.reason,
            "status": error.code,
            "detail": f"The request could not be read: {error.body}. {do}",
            "faults": [],
        }
        body = json.dumps(said).encode()
        self.status = f"{error.code} {error.reason}"
        self.response_headers.append(("Content-Type", "application/problem+json"))
        self.set_close_on_finish()
        self.content_length = len(body)
        self.write(body)


class Parser(HTTPRequestParser):  # type: ignore[misc]
    """Reads a request; the archive of a whole shop may be longer than any other."""

    def parse_header(self, header: bytes) -> None:
        """Read the head, and judge the body's length by where it goes."""
        super().parse_header(header)
        if self.command == "POST" and self.path == ARCHIVE:
            self.adj: Any = copy(self.adj)
            self.adj.max_request_body_size = MOST_ARCHIVE


class Channel(HTTPChannel):  # type: ignore[misc]
    """One connection, with the moment since which it waits for the rest of a request."""

    parser_class = Parser
    error_task_class = PlainError

    def __init__(self, server: Any, sock: Any, addr: Any, adj: Any, map: Any = None) -> None:
        self.waits_since = time.monotonic()
        self.arrived = 0
        super().__init__(server, sock, addr, adj, map)
        here = [one for one in server.active_channels.values() if one.addr[0] == addr[0]]
        waiting = sorted((one for one in here if one.waits), key=lambda one: one.waits_since)
        for oldest in waiting[: max(len(waiting) - MOST_WAITING, 0)]:
            oldest.handle_close()

    @property
    def waits(self) -> bool:
        """Whether nothing is being worked on or sent: it is the client's turn."""
        return not self.requests and not self.total_outbufs_len

    def received(self, data: bytes) -> bool:
        """Take what came; the first piece of a request starts its time."""
        fresh = self.request is None
        self.arrived += len(data)
        taken = bool(super().received(data))
        # An archive takes long to arrive; it may for as long as it keeps arriving.
        if fresh or self.request is None or self.arrived >= STRIDE:
            self.waits_since = time.monotonic()
            self.arrived = 0
        return taken


class Server(TcpWSGIServer):  # type: ignore[misc]
    """Waitress with the limits above."""

    channel_class = Channel

    def maintenance(self, now: float) -> None:
        """Close what waits too long, idle or unfinished."""
        super().maintenance(now)
        late = time.monotonic() - UNFINISHED
        for channel in tuple(self.active_channels.values()):
            if channel.request is not None and channel.waits and channel.waits_since < late:
                channel.handle_close()


class PatientWorker(Worker):  # type: ignore[misc]
    """gunicorn's part: start, beat while the loop turns, stop when told."""

    def run(self) -> None:
        """Serve until told to stop, then let what is being answered end."""
        sockets: dict[int, Any] = {}
        adjust = Adjustments(
            sockets=[listener.sock for listener in self.sockets],
            threads=THREADS,
            connection_limit=400,
            cleanup_interval=3,
            channel_timeout=60,
            asyncore_use_poll=True,
            clear_untrusted_proxy_headers=False,
            max_request_body_size=8_000_000,
            ident=None,
        )
        dispatcher = ThreadedTaskDispatcher()
        dispatcher.set_thread_count(THREADS)
        servers = [
            Server(
                self.wsgi,
                sockets,
                _sock=sock,
                dispatcher=dispatcher,
                adj=adjust,
                sockinfo=(sock.family, sock.type, sock.proto, sock.getsockname()),
                bind_socket=False,
            )
            for sock in adjust.sockets
        ]
        while self.alive and self.ppid_is_alive():
            self.notify()
            wasyncore.loop(timeout=1, use_poll=True, map=sockets, count=1)
        for server in servers:
            server.accepting = False
            server.del_channel()
        end = time.monotonic() + self.cfg.graceful_timeout / 3
        while time.monotonic() < end and not all(
            one.waits for server in servers for one in server.active_channels.values()
        ):
            self.notify()
            wasyncore.loop(timeout=0.2, use_poll=True, map=sockets, count=1)
        dispatcher.shutdown()

    def ppid_is_alive(self) -> bool:
        """Whether the master still stands: a worker alone would serve for ever."""
        return bool(os.getppid() == self.ppid)
