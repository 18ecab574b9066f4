"""A set turned into clubs: bends and grinds of heads, the rest of the club, the order of work. docs/models/build.md."""
