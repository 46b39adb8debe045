"""How much of everything: lines of the mix by mass of the meat, the salt still to add, pieces that multiply back.

What the mix is like belongs to ``mix``, what a piece looks like to ``shape``.
"""
