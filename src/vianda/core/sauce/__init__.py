"""Sauces and what else goes round the meat: taste, nudges, doses, glazes, cooking down, brines."""
