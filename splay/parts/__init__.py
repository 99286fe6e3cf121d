"""What to cut: legs and the sockets they go into, finished and blank."""

from splay.parts.leg import LegPart, leg_part
from splay.parts.socket import SocketPart, socket_part

__all__ = ["LegPart", "SocketPart", "leg_part", "socket_part"]
