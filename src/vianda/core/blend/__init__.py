"""The meats together: fat and its spread, connective tissue, grind, names on a label, money, the butcher's slip,
schools.

Reaching a target is in ``target``; what else goes in is in ``mix``.
"""
