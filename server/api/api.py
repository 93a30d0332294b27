"""The API object: session sign-in with CSRF for everything, problem+json for every refusal."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import NinjaAPI
from ninja.parser import Parser
from ninja.security import django_auth

from api.errors import install_handlers
from welding.documents.codec import parse_json


class StrictParser(Parser):
    """Refuses a body that is too deep, holds a key twice or is no JSON, before anything else."""

    def parse_body(self, request: HttpRequest) -> dict[str, Any]:
        """Parse a JSON body."""
        body: dict[str, Any] = parse_json(request.body)
        return body


api = NinjaAPI(
    title="Grounded Bead",
    version="1",
    auth=django_auth,
    parser=StrictParser(),
    docs_url=None,
    openapi_url=None,
)
install_handlers(api)
