"""Carried elsewhere: raw pieces in a cold box, the ice they take, and how long they may lie out of the cold."""
