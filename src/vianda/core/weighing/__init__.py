"""Pieces on a scale: what to do with this one, the record, the control chart."""
