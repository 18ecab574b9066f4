"""The engine and the use cases from a shell: JSON in, JSON out."""
