"""The stages of an evaluation, each computed once from what it needs; see docs/pipeline.md.

No words for people: counsel and workings are in the rooms above.
"""
