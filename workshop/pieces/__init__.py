"""Pieces: kept with every saved revision, and with the readings taken on them."""
