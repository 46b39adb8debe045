"""Orders as they come: how many a kitchen holds, how long guests wait, and what is held ready."""
