"""Walls and the rooms that come of them."""

from __future__ import annotations

from .face_lines import FaceWall
from .faces import faces_met, walls_of_faces
from .follow import Followed, follow
from .gaps import Gap, gaps_of
from .gestures import drawn
from .hand import At, Gesture, Id, Said
from .moving import move_as_one
from .names import fresh_names
from .net import JOIN_M, LEAST_ROOM_M2, MAX_CROSSINGS, WallNet, net_of, nets_of
from .outlines import alike, outline_of, twins
from .questions import RoomAnswer, RoomQuestion
from .seen import ProposedWall, SeenGap, SeenWall, proposed

__all__ = [
    "JOIN_M",
    "LEAST_ROOM_M2",
    "MAX_CROSSINGS",
    "At",
    "FaceWall",
    "Followed",
    "Gap",
    "Gesture",
    "Id",
    "ProposedWall",
    "RoomAnswer",
    "RoomQuestion",
    "Said",
    "SeenGap",
    "SeenWall",
    "WallNet",
    "alike",
    "drawn",
    "faces_met",
    "follow",
    "fresh_names",
    "gaps_of",
    "move_as_one",
    "net_of",
    "nets_of",
    "outline_of",
    "proposed",
    "twins",
    "walls_of_faces",
]
