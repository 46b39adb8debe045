"""The grammar of an opening line: each rule is a way cooks say one thing, and what it is taken for.

Rules that take equally much are tried in the order in which their files are read here.
"""

# isort: off
from vianda.core.reading.rules import people as people
from vianda.core.reading.rules import pieces as pieces
from vianda.core.reading.rules import masses as masses
from vianda.core.reading.rules import meats as meats
from vianda.core.reading.rules import sizes as sizes
from vianda.core.reading.rules import heat as heat
from vianda.core.reading.rules import salt as salt
from vianda.core.reading.rules import limits as limits
from vianda.core.reading.rules import times as times
from vianda.core.reading.rules import rest as rest
from vianda.core.reading.rules.common import LINE as LINE

# isort: on
