"""The front server (nginx): static files compressed and cached, slow requests held back, live streams passed through."""

from __future__ import annotations

import shutil
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

from oblatus.formats.limits import LARGEST_FITTING
from oblatus.store.server import as_another_user
from oblatus.web.headers import ASSET_CACHE, PHONE_HEADERS, SECURITY_HEADERS

FIRST_FREE_PORT = 1024


@dataclass(frozen=True, slots=True)
class Front:
    """Where the front listens and whom it stands before."""

    host: str
    port: int
    web_port: int
    live_port: int
    static_dir: Path
    folder: Path
    names: Sequence[str]

    def command(self) -> list[str]:
        """The command that runs it in the foreground; root leaves its rights behind unless the port needs them."""
        conf = self.folder / "nginx.conf"
        self.folder.mkdir(parents=True, exist_ok=True, mode=0o700)
        conf.write_text(self.configuration())
        before = as_another_user() if self.port >= FIRST_FREE_PORT else ()
        return [*before, program() or "nginx", "-p", str(self.folder), "-c", str(conf), "-e", "stderr"]

    def configuration(self) -> str:
        """The configuration file."""
        root = "" if self.port >= FIRST_FREE_PORT else "user root;"
        return f"""
{root}
daemon off;
worker_processes 1;
worker_rlimit_nofile 8192;
pid {self.folder}/nginx.pid;
events {{ worker_connections 4096; }}
http {{
  include /etc/nginx/mime.types;
  types {{ application/manifest+json webmanifest; }}
  default_type application/octet-stream;
  access_log off;
  server_tokens off;
  absolute_redirect off;
  {"".join(f"{kind}_temp_path {self.folder}/{kind};" for kind in ("client_body", "proxy", "fastcgi", "uwsgi", "scgi"))}
  client_header_timeout 10s;
  client_body_timeout 20s;
  send_timeout 30s;
  keepalive_timeout 30s;
  client_max_body_size 1100k;
  client_body_buffer_size 1100k;
  sendfile on;
  gzip on;
  gzip_comp_level 6;
  gzip_min_length 1000;
  gzip_vary on;
  gzip_types text/css text/javascript application/javascript application/json application/manifest+json
    image/svg+xml text/csv;
  proxy_connect_timeout 3s;
  proxy_read_timeout 150s;
  proxy_set_header Host $http_host;
  proxy_set_header X-Forwarded-For $remote_addr;
  proxy_set_header Connection "";
  proxy_http_version 1.1;
  error_page 413 @too_large;
  error_page 502 504 @away;
  server {{
    listen {self.host}:{self.port} default_server;
    server_name _;
    return 400;
  }}
  server {{
    listen {self.host}:{self.port};
    server_name {" ".join(self.names)};
    root {self.static_dir};
    location @too_large {{ {_says(413, "too_large", "That is larger than can be sent here; nothing was saved.")} }}
    location @away {{ {_says(503, "busy", "The program does not answer at this moment; nothing was saved.")} }}
    location /api/ {{ proxy_pass http://127.0.0.1:{self.web_port}; }}
    location = /api/session {{ gzip off; proxy_pass http://127.0.0.1:{self.web_port}; }}
    location = /api/live {{
      gzip off;
      proxy_buffering off;
      proxy_read_timeout 1h;
      proxy_pass http://127.0.0.1:{self.live_port};
    }}
    location ~ ^/api/fittings/(import|[^/]+/(imports|photos))$ {{
      client_max_body_size {LARGEST_FITTING // 1_000_000 + 1}m;
      client_body_timeout 60s;
      proxy_pass http://127.0.0.1:{self.web_port};
    }}
    location /assets/ {{ {_headers({"Cache-Control": ASSET_CACHE})} try_files $uri =404; }}
    location /p/ {{ {_headers(PHONE_HEADERS)} try_files /phone.html =404; }}
    location ~ ^/(?!api/|assets/|p/).*\\.[A-Za-z0-9]+$ {{
      {_headers({"Cache-Control": "no-cache"})}
      try_files $uri =404;
    }}
    location / {{ {_headers({"Cache-Control": "no-cache"})} try_files $uri /index.html; }}
  }}
}}
"""


def program() -> str | None:
    """Path of nginx, or None if it is not installed."""
    return shutil.which("nginx", path="/usr/sbin:/usr/local/sbin:/usr/bin:/usr/local/bin")


def _headers(more: dict[str, str]) -> str:
    return " ".join(f'add_header {name} "{value}" always;' for name, value in {**SECURITY_HEADERS, **more}.items())


def _says(status: int, code: str, words: str) -> str:
    body = f'{{"code":"{code}","message":"{words}","faults":[],"revision":null,"reference":null}}'
    return (
        'default_type application/json; add_header Cache-Control "no-store" always; '
        f"add_header Retry-After 2 always; return {status} '{body}';"
    )
