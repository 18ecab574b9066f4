"""Headers and cookies that are neither a session's nor a framework's. What keeps the page to itself is the same from the
application and from the front server."""

SECURITY_HEADERS = {
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Content-Security-Policy": (
        "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self'; worker-src 'self'; "
        "manifest-src 'self'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'"
    ),
}
ASSET_CACHE = "public, max-age=31536000, immutable"
PHONE_HEADERS = {"Cache-Control": "no-cache", "X-Robots-Tag": "noindex, nofollow", "Referrer-Policy": "no-referrer"}
"""Of the player's page: its address is its key."""
PROGRAM_HEADER = "X-Oblatus-Program"
"""Of every answer of the API: the file with which the page begins that is served now. A page that began with another is
of before an upgrade, and says so."""
ZONE_COOKIE = "oblatus_zone"
"""The time zone of the browser, also of what it asks for by a link: days of answers and prints are those where it is."""
