"""The rules of the work: from chosen splay to bench settings, lengths and proofs."""
