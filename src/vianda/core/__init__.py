"""The trade: pure functions and frozen dataclasses. One room a topic, no module here; see CONTRIBUTING.md for the floor
plan.

Nothing here keeps anything between two questions: no thread, no clock, no file but the tables shipped with it.
"""
