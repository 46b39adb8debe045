"""The last stage: ticket, rail, figures and counsel together; and what is opened beside them."""
