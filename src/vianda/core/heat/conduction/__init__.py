"""Heat through a piece: conduction with boiling, drip and rendering, by finite volumes."""
