"""Ways to reach a target of fat: two meats, a batch to be mended, or the cheapest of many."""
