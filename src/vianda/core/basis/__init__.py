"""What every room stands on: units, errors, sentences with quantities, workings, bands, bounds, a scale's steps.

Nothing of meat, of kitchens or of dishes belongs here.
"""
