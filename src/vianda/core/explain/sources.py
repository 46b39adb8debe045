"""What is said of a figure that has no published source."""

PRACTICE = "Common practice, no published source."
