"""Open formats: bytes out, from drawings and plans."""
