"""Solids as glTF and STL, through trimesh."""

from __future__ import annotations

import io
import zipfile
from collections.abc import Sequence
from typing import Any

import numpy as np
import trimesh

from splay.solids import Part

SAID = (
    "Solids as planned: holes bored, tenons on, feet cut. Not in them: mortises and tenons of squared "
    "parts, screws, wedges, rounded arrises, colours of wood. No readings, no settings."
)
_UP = np.array(((1.0, 0.0, 0.0, 0.0), (0.0, 0.0, 1.0, 0.0), (0.0, -1.0, 0.0, 0.0), (0.0, 0.0, 0.0, 1.0)))
"""glTF 2.0, 3.4: y up, metres; ours is z up, mm."""
_EPOCH = (1980, 1, 1, 0, 0, 0)


def _mesh(part: Part) -> Any:
    """trimesh says of little what it is."""
    return trimesh.Trimesh(part.points, part.triangles, process=False)


def gltf(parts: Sequence[Part]) -> bytes:
    """One binary glTF (GLB): a node and a mesh a part, named; metres, y up."""
    scene: Any = trimesh.Scene()
    for part in parts:
        mesh = trimesh.Trimesh(part.points / 1000.0, part.triangles, process=False)
        mesh.apply_transform(_UP)
        scene.add_geometry(mesh, node_name=part.name, geom_name=f"{part.name} ({part.key})")
    return bytes(scene.export(file_type="glb"))


def stl(parts: Sequence[Part]) -> bytes:
    """A zip of binary STL files, one a part, mm, as they stand on the floor (z up)."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for number, part in enumerate(parts, 1):
            name = (
                "".join(c if c.isascii() and c.isalnum() else "-" for c in part.name).strip("-") or "part"
            )
            # One fixed moment: the same piece gives the same file.
            info = zipfile.ZipInfo(f"{number:02d}-{name}.stl", _EPOCH)
            info.compress_type = zipfile.ZIP_DEFLATED
            archive.writestr(info, _mesh(part).export(file_type="stl"))
    return out.getvalue()
