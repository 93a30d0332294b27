"""How Debian's Chromium is started: headless, and with no way to any host but this machine."""

import shutil
from typing import Any

LAUNCH: dict[str, Any] = {
    "executable_path": shutil.which("chromium") or "/usr/bin/chromium",
    "args": [
        "--disable-gpu",
        "--disable-quic",
        "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost",
    ],
}
CONTEXT: dict[str, Any] = {
    "viewport": {"width": 1280, "height": 800},
    "locale": "en-GB",
    "timezone_id": "UTC",
    "reduced_motion": "reduce",
}
