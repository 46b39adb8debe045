"""What went wrong: from symptoms, the batch's own figures and a few answers to causes, and what mends them."""
