"""The kitchen as it really behaves: scale, surfaces and how they give heat, breads, grinders, tins, trays and scoops.

What happens to a piece on them belongs to ``heat``.
"""
