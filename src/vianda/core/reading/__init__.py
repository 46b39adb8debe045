"""What people type, read as quantities and amounts; refused with a sentence where it cannot be read.

What a figure may be is the affair of ``model.field_table``.
"""
