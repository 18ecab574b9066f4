"""Invented demo data: a rack of heads and fittings."""
