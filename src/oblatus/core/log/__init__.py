"""What happened on the course: shots as the player noted them, what they say, and what follows from that."""
