"""Conduction, boiling, drying and drip through a slab, a ball or a loaf, in machine code; see docs/heat-model.md.

Only numbers and arrays: no formula, no kitchen, no sentence.
"""
