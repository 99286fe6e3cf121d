"""Trimming the legs level: how it stands, where to cut, what each leg loses, when it is good enough."""
