"""What a kitchen measures and writes down: the published line, when it is asked for, what is done when it is missed.

It defers to local codes and to whoever is licensed to judge; nothing here says that food is safe.
"""
