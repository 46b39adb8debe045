"""Blind tastings: who gets what in which order under which code, what the answers say, and how little they can find."""
