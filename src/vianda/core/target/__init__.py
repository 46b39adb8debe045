"""Ways to a target of fat: the square, a mend, many meats by linear and quadratic programs, and what binds them."""
