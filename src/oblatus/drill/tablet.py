"""What a browser's queue does, at the shell: an act stays until the server has it or looked at it and refuses it."""

from __future__ import annotations

import http.client
import http.cookiejar
import json
import time
import urllib.error
import urllib.request
from dataclasses import dataclass, field
from typing import Any
from uuid import uuid4

from oblatus.web.auth import FITTER_HEADER

PATIENCE = 240.0
PAUSE = 0.1
TIMEOUT = 20.0


@dataclass(slots=True)
class Answer:
    """An answer of the server; status 0 when nothing answered."""

    status: int
    body: dict[str, Any]

    @property
    def code(self) -> str:
        """The error's own word, empty on success."""
        return str(self.body.get("code", ""))


@dataclass(slots=True)
class Tablet:
    """One browser of one fitter: cookies, token, and how often it had to try again and why."""

    address: str
    email: str
    password: str
    fitter: str = ""
    token: str = ""
    timeout: float = TIMEOUT
    retries: dict[str, int] = field(default_factory=dict)
    jar: http.cookiejar.CookieJar = field(default_factory=http.cookiejar.CookieJar)

    def ask(self, method: str, path: str, body: Any = None) -> Answer:
        """One request, whatever comes of it."""
        opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        headers = {"Content-Type": "application/json", "X-CSRF-Token": self.token}
        if self.fitter:
            headers[FITTER_HEADER] = self.fitter
        data = None if body is None else json.dumps(body).encode()
        request = urllib.request.Request(self.address + path, data=data, method=method, headers=headers)
        try:
            with opener.open(request, timeout=self.timeout) as reply:
                return Answer(reply.status, _parsed(reply.read()))
        except urllib.error.HTTPError as error:
            with error:
                return Answer(error.code, _parsed(error.read()))
        except (OSError, http.client.HTTPException):
            return Answer(0, {})

    def sign_in(self) -> None:
        """Sign in, however long it takes."""

        def once() -> bool:
            self.token = str(self.ask("GET", "/api/session").body.get("csrf_token", ""))
            answer = self._anonymous("POST", "/api/session", {"email": self.email, "password": self.password})
            if answer.status != 200:
                return False
            self.token, self.fitter = str(answer.body["csrf_token"]), str(answer.body["fitter_id"])
            return True

        _until(once)

    def insist(self, method: str, path: str, body: Any = None) -> Answer:
        """An act: sent until the server has it, or looked at it and refuses it for good."""
        deadline = time.monotonic() + PATIENCE
        while True:
            answer = self.ask(method, path, body)
            if 200 <= answer.status < 300 or (answer.status in (404, 422) and answer.code):
                return answer
            if time.monotonic() > deadline:
                raise TimeoutError(f"{method} {path}: {answer.status} {answer.code}")
            reason = answer.code or (str(answer.status) if answer.status else "no answer")
            self.retries[reason] = self.retries.get(reason, 0) + 1
            if answer.status == 401:
                self.sign_in()
            elif answer.code == "csrf":
                self.token = str(self.ask("GET", "/api/session").body.get("csrf_token", ""))
            else:
                time.sleep(PAUSE)

    def forget_cookies(self) -> None:
        """Lose the session, as a browser that is told to clear up does."""
        self.jar.clear()

    def taken_over_by(self, other: Tablet) -> None:
        """Somebody else signs in on this browser: the cookie is theirs, the page and its queue are not."""
        mine = (self.email, self.password, self.fitter, self.token)
        self.email, self.password, self.fitter = other.email, other.password, ""
        self.sign_in()
        self.email, self.password, self.fitter, self.token = mine

    def _anonymous(self, method: str, path: str, body: Any) -> Answer:
        fitter, self.fitter = self.fitter, ""
        try:
            return self.ask(method, path, body)
        finally:
            self.fitter = fitter


def strike(carry_m: float) -> dict[str, Any]:
    """A strike that can be told from every other by its id and carry."""
    return {"id": str(uuid4()), "club": "pw", "loft_deg": 46, "swing": "pitch", "carry_m": carry_m}


def _until(holds: Any) -> None:
    deadline = time.monotonic() + PATIENCE
    while not holds():
        if time.monotonic() > deadline:
            raise TimeoutError("could not sign in")
        time.sleep(PAUSE)


def _parsed(raw: bytes) -> dict[str, Any]:
    try:
        found = json.loads(raw or b"{}")
    except ValueError:
        return {}
    return found if isinstance(found, dict) else {}
