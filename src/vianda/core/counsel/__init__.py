"""The remarks that the rules make about a formula: what, why, the figure, and the change that settles it.

A rule reads the stages' results and computes nothing of its own that a figure should be.
"""
