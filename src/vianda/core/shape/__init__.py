"""The piece: what it is made of, its size raw and cooked, what the heat leaves of it, tins and scoops, how pieces lie.

Temperatures and times belong to ``heat``.
"""
