"""After the fitting: what wears and drifts, other ground for some days, and what the studio's claims came to."""
