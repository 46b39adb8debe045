"""Edits carried out: a formula and an edit in, the changed formula out.

The edits themselves are data in ``model.edit``.
"""
