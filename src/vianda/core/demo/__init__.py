"""The invented kitchen of Kestrel Sound light station and ferry yard, and its formulas. No rule lives here."""
