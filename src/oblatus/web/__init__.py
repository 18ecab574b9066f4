"""Flask: factory, errors, sign-in, routes and schemas."""
