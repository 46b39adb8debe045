"""At the stove: what to do step by step and wave by wave, and what came of it."""
