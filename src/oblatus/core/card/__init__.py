"""What the player takes home: distances, how to set up for each lie, and drills."""
