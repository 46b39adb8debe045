"""What to change next: from scores of earlier cooks and the table of faults to the one change that promises most."""
