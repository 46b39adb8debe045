"""What goes into the meat, and what that does to the whole."""
