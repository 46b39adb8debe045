"""The piece: solids, densities, what it is shaped in, how it fits, and how many lie on a surface at once."""
