"""``vianda …``: formulas, plans, lists and archives from a terminal, and the house-keeping that ``./start`` calls."""
