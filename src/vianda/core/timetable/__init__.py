"""When to do what: the tasks that a formula's other steps decided, put in time, and said in words."""
