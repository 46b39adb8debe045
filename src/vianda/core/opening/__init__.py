"""From one line to a first formula, with what was read, assumed and left unread, and the questions worth asking."""
