"""The piece and its set-ups as true-scale drawings: lines, ellipses and texts on named layers."""
