"""The demo's world: Larkmoor, an invented hill-top observatory, and its two-bench workshop."""
