"""A bench that carries out what the cards say, knowing the stock, the marks, the tools and the data alone.

It imports nothing of the core but the types of documents, cards and instructions: every place, side and
angle is worked out here anew, from vectors and rotations of its own.
"""
