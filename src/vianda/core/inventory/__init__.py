"""What there is to cook with: meats with their fat and what is known of it, lots, ingredients, what the house makes.

How much of it goes into a dish belongs to the rooms above.
"""
