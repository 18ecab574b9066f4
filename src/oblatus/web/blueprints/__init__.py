"""Thin routes: parse, call one use case, answer."""
