"""Two versions side by side: what differs, what was forecast, what happened, and how sure that difference is."""
