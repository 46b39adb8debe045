"""What a process adds to the core so that it serves quickly: a memory of runs, threads, and machine code kept on disk.

No rule of the trade lives here; with or without it the answers are the same.
"""
