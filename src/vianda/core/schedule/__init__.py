"""Putting tasks in time: a problem, its solution, a checker that knows nothing of the solver, and what chance does."""
