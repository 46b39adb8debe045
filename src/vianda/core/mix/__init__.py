"""What goes into the meat: panade, schools of mixing, the whole mix, limits, how it holds, is made and weighed out.

Carrying out an edit of the mix belongs to ``editing``.
"""
