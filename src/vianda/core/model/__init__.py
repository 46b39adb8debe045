"""The formula as plain values, the edits a cook can make to it, the one table of its figures, and the styles.

Nothing is computed here, and no edit is carried out.
"""
