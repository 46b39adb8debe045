"""How a piece cooks: usual practice beside the computed run, floors and holds, ways, questions, what a probe says.

``conduction`` below it is the simulation itself and knows nothing of formulas.
"""
