"""The fault drill: the application served from a throw-away folder while everything in it is broken, and the counts."""
