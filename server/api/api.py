"""The API object: session sign-in with CSRF for everything, problem+json for every refusal."""

from __future__ import annotations

import json
from typing import Any

import orjson
from django.http import HttpRequest
from ninja import NinjaAPI
from ninja.parser import Parser
from ninja.renderers import BaseRenderer
from ninja.responses import NinjaJSONEncoder
from ninja.security import django_auth

from api.errors import install_handlers
from welding.documents.codec import parse_json


class StrictParser(Parser):
    """Refuses a body that is too deep, holds a key twice or is no JSON, before anything else."""

    def parse_body(self, request: HttpRequest) -> dict[str, Any]:
        """Parse a JSON body."""
        body: dict[str, Any] = parse_json(request.body)
        return body


class JsonRenderer(BaseRenderer):
    """JSON by a compiled library: an evaluation of twelve passes is 130 kB on every keystroke."""

    media_type = "application/json"

    def render(self, request: HttpRequest, data: Any, *, response_status: int) -> bytes:
        """The answer's bytes; what JSON does not know goes the way of the framework's own encoder."""
        try:
            return orjson.dumps(data, default=_default, option=orjson.OPT_NON_STR_KEYS)
        except TypeError:  # numbers over 64 bits, which only the slow way writes
            return json.dumps(data, cls=NinjaJSONEncoder).encode()


_default = NinjaJSONEncoder().default

api = NinjaAPI(
    title="Grounded Bead",
    version="1",
    auth=django_auth,
    parser=StrictParser(),
    renderer=JsonRenderer(),
    docs_url=None,
    openapi_url=None,
)
install_handlers(api)
