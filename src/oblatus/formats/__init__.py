"""Open formats in and out: the fitting document, the rack, the recommendation. No database in here."""
