"""Solids as glTF and STL, through trimesh."""

from __future__ import annotations

import io
import zipfile
from collections.abc import Sequence
from typing import Any

import numpy as np

from splay.solids import Part

SAID = (
    "Solids as planned: holes bored, tenons on, feet cut. Not in them: mortises and tenons of squared "
    "parts, screws, wedges, rounded arrises, colours of wood. No readings, no settings."
)
_UP = np.array(((1.0, 0.0, 0.0, 0.0), (0.0, 0.0, 1.0, 0.0), (0.0, -1.0, 0.0, 0.0), (0.0, 0.0, 0.0, 1.0)))
"""glTF 2.0, 3.4: y up, metres; ours is z up, mm."""
_EPOCH = (1980, 1, 1, 0, 0, 0)


def _library() -> Any:
    """trimesh, read in when a solid is first asked for: it takes longer than all the rest of a start."""
    import trimesh

    return trimesh


def _mesh(part: Part, scale: float = 1.0) -> Any:
    return _library().Trimesh(part.points * scale, part.triangles, process=False)


def gltf(parts: Sequence[Part]) -> bytes:
    """One binary glTF (GLB): a node and a mesh a part, named; metres, y up."""
    scene = _library().Scene()
    for part in parts:
        mesh = _mesh(part, 0.001)
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
