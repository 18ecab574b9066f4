"""Everything that `./start` keeps running: database, servers, bridge, stand-ins, logs, nightly copies."""
