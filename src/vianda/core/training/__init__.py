"""The trainer: rounds that practise a cook’s judgement, each from an evaluation, and which come next."""
