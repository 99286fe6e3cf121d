"""The timber store, and the wood of pieces: kept, reserved, sawn."""
