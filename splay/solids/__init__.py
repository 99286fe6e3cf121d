"""Every part of a piece as a closed solid."""

from splay.solids.tops import top_solid
from splay.solids.whole import Part, body_solid, groove_solid, member_solid, solids_of

__all__ = ["Part", "body_solid", "groove_solid", "member_solid", "solids_of", "top_solid"]
