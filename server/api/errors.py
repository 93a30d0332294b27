"""Every refusal leaves as RFC 9457 problem+json: what happened, where, and what stands there now."""

from __future__ import annotations

import errno
import logging
import sys
from typing import Any

from django.core.exceptions import BadRequest, RequestDataTooBig, SuspiciousOperation
from django.db import DataError, IntegrityError, InterfaceError, OperationalError
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse, RawPostDataException
from django.http.multipartparser import MultiPartParserError
from django.http.request import UnreadablePostError
from ninja import NinjaAPI, Schema
from ninja.errors import AuthenticationError, HttpError, ValidationError
from psycopg.errors import CheckViolation, DiskFull
from pydantic import ValidationError as PydanticError

from welding.errors import DocumentError, UnreadableError, WeldingError
from welding.language import tr, tr_noop

log = logging.getLogger("api")

LARGEST_DRAIN = 100_000_000


class FieldProblem(Schema):
    """One mistake and its place."""

    path: str
    message: str
    value: str = ""


class ProblemOut(Schema):
    """Body of every refusal."""

    type: str
    title: str
    status: int
    detail: str
    errors: list[FieldProblem] = []
    current: dict[str, Any] | None = None


class Refusal(Exception):
    """A refusal with its HTTP status; raised by services, written by the handler."""

    status = 400
    type = "refused"
    title = tr_noop("Not possible")

    def __init__(
        self,
        detail: str,
        *,
        errors: list[dict[str, str]] | None = None,
        current: dict[str, Any] | None = None,
    ) -> None:
        super().__init__(detail)
        self.detail = detail
        self.errors = errors or []
        self.current = current


class NotAllowedError(Refusal):
    """The person's role does not allow it."""

    status, type, title = 403, "not-allowed", tr_noop("Not allowed")


class StaleError(Refusal):
    """Someone saved in the meantime; ``current`` holds what stands now."""

    status, type, title = 409, "stale", tr_noop("Changed in the meantime")


class ConflictError(Refusal):
    """It collides with something that is already there."""

    status, type, title = 409, "conflict", tr_noop("Already there")


class NoListError(ConflictError):
    """The job has no weld list; the screen offers to make one."""

    type, title = "no-weld-list", tr_noop("No weld list")


class DamagedError(Refusal):
    """The bytes of something signed or frozen are not those that were signed; nothing is shown from them."""

    status, type, title = 409, "damaged", "Damaged"

    def __init__(self, what: str) -> None:
        super().__init__(
            tr(
                "{what} is not what was kept: its contents do not match their hash. Nothing is "
                "shown from it. Tell the administrator; ./bead audit verify says what was changed.",
                what=what,
            )
        )


class InvalidError(Refusal):
    """A field is wrong."""

    status, type, title = 422, "invalid", tr_noop("Not accepted")


class DocumentRefused(Exception):
    """A document refused by the core's codec, on its way out of request parsing."""

    def __init__(self, error: DocumentError) -> None:
        super().__init__(str(error))
        self.error = error


def problem(
    status: int,
    type_: str,
    title: str,
    detail: str,
    errors: list[dict[str, str]] | None = None,
    current: dict[str, Any] | None = None,
) -> JsonResponse:
    """A problem+json response."""
    body = {
        "type": f"/problems/{type_}",
        "title": title,
        "status": status,
        "detail": detail,
        "errors": errors or [],
        "current": current,
    }
    return JsonResponse(body, status=status, content_type="application/problem+json")


def _document(error: DocumentError) -> JsonResponse:
    errors = [{"path": one.path, "message": one.message, "value": one.value} for one in error.problems]
    return problem(422, "document", tr("Not accepted"), str(error), errors)


def disk_full() -> JsonResponse:
    """There is no room to keep anything."""
    detail = tr("The disk of the server is full: nothing was saved. What you typed stays on the screen.")
    return problem(507, "disk-full", tr("Disk full"), detail)


def database_gone(request: HttpRequest, error: Exception | None = None) -> JsonResponse:
    """The database does not answer, or has no room."""
    if error is not None and isinstance(error.__cause__, DiskFull):
        return disk_full()
    detail = tr("The database does not answer.")
    if request.method not in ("GET", "HEAD"):
        detail += tr(" Nothing was saved. What you typed stays on the screen and is sent again.")
    response = problem(503, "database", tr("The database does not answer"), detail)
    response["Retry-After"] = "3"
    return response


def install_handlers(api: NinjaAPI) -> None:
    """Give the API its refusals."""

    @api.exception_handler(Refusal)
    def refused(request: HttpRequest, error: Refusal) -> HttpResponse:
        return problem(error.status, error.type, tr(error.title), error.detail, error.errors, error.current)

    @api.exception_handler(DocumentRefused)
    def document_refused(request: HttpRequest, error: DocumentRefused) -> HttpResponse:
        return _document(error.error)

    @api.exception_handler(WeldingError)
    def not_understood(request: HttpRequest, error: WeldingError) -> HttpResponse:
        if isinstance(error, DocumentError):
            return _document(error)
        value = error.text if isinstance(error, UnreadableError) else ""
        return problem(
            422,
            "unreadable",
            tr("Not understood"),
            str(error),
            [{"path": "", "message": str(error), "value": value}],
        )

    @api.exception_handler(ValidationError)
    def invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
        errors = [
            {
                "path": ".".join(str(part) for part in item["loc"][1:] if part != "payload"),
                "message": item["msg"].removeprefix("Value error, "),
                "value": "",
            }
            for item in error.errors[:50]
        ]
        first = errors[0] if errors else {"path": "", "message": tr("not understood")}
        where = f"{first['path']}: " if first["path"] else ""
        return problem(422, "invalid", tr("Not accepted"), f"{where}{first['message']}", errors)

    @api.exception_handler(AuthenticationError)
    def signed_out(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        return problem(
            401, "signed-out", tr("Signed out"), tr("Sign in again; what you typed stays on the screen.")
        )

    @api.exception_handler(HttpError)
    def http_error(request: HttpRequest, error: HttpError) -> HttpResponse:
        # The framework hides why a body was refused; its cause knows.
        if isinstance(error.__cause__, DocumentError):
            return _document(error.__cause__)
        if isinstance(error.__cause__, RequestDataTooBig):
            return too_big(request, error.__cause__)
        kind = "csrf" if "CSRF" in str(error) else "refused"
        return problem(error.status_code, kind, tr("Not accepted"), str(error))

    @api.exception_handler(Http404)
    def not_found(request: HttpRequest, error: Http404) -> HttpResponse:
        return problem(404, "not-found", tr("Not found"), tr("There is nothing at this address (any more)."))

    @api.exception_handler(RequestDataTooBig)
    def too_big(request: HttpRequest, error: RequestDataTooBig) -> HttpResponse:
        # Read the rest away, so that the sender hears the answer and not a broken pipe.
        left = LARGEST_DRAIN
        while left > 0 and (chunk := request.read(65_536)):
            left -= len(chunk)
        return problem(413, "too-big", tr("Too big"), tr("A document has at most 2 MB."))

    @api.exception_handler(MultiPartParserError)
    def not_json(request: HttpRequest, error: MultiPartParserError) -> HttpResponse:
        return problem(415, "not-json", tr("Not accepted"), tr("Send JSON."))

    @api.exception_handler(BadRequest)
    @api.exception_handler(SuspiciousOperation)
    def odd(request: HttpRequest, error: Exception) -> HttpResponse:
        return problem(400, "odd", tr("Not accepted"), tr("The request could not be read."))

    @api.exception_handler(OperationalError)
    def database_error(request: HttpRequest, error: OperationalError) -> HttpResponse:
        log.error("database does not answer: %s", error)
        return database_gone(request, error)

    @api.exception_handler(InterfaceError)
    def interface_error(request: HttpRequest, error: InterfaceError) -> HttpResponse:
        log.error("database connection lost: %s", error)
        return database_gone(request)

    @api.exception_handler(DataError)
    @api.exception_handler(UnicodeEncodeError)
    def not_storable(request: HttpRequest, error: Exception) -> HttpResponse:
        log.warning("cannot be stored at %s: %s", request.path, error)
        return problem(
            422, "invalid", tr("Not accepted"), tr("A value is too large, or no text may hold it.")
        )

    @api.exception_handler(IntegrityError)
    def collides(request: HttpRequest, error: IntegrityError) -> HttpResponse:
        """The database is the last to refuse: frozen beneath a signature, or taken in the same moment."""
        log.warning("refused by the database at %s: %s", request.path, error)
        frozen = isinstance(error.__cause__, CheckViolation)
        said = (
            tr("What is signed or in the audit trail no longer changes.")
            if frozen
            else tr("It is there already.")
        )
        return problem(409, "conflict", tr("Not possible"), tr("{said} Nothing was saved.", said=said))

    @api.exception_handler(PydanticError)
    def damaged(request: HttpRequest, error: PydanticError) -> HttpResponse:
        log.error("damaged at %s: %s", request.path, error)
        return problem(
            409, "damaged", "Damaged", tr("What is kept here cannot be read; it was written to the log.")
        )

    @api.exception_handler(MemoryError)
    def too_much(request: HttpRequest, error: MemoryError) -> HttpResponse:
        log.error("out of memory at %s", request.path)
        return problem(413, "too-big", tr("Too big"), tr("This takes more memory than a request may take."))

    @api.exception_handler(RawPostDataException)
    @api.exception_handler(UnreadablePostError)
    def unread(request: HttpRequest, error: Exception) -> HttpResponse:
        return problem(400, "odd", tr("Not accepted"), tr("The request could not be read: send JSON."))

    @api.exception_handler(OSError)
    def disk(request: HttpRequest, error: OSError) -> HttpResponse:
        if error.errno not in (errno.ENOSPC, errno.EDQUOT, errno.EROFS):
            log.exception("unexpected error at %s", request.path, exc_info=error)
            return _unexpected()
        log.error("the disk is full at %s", request.path)
        return disk_full()

    @api.exception_handler(Exception)
    def unexpected(request: HttpRequest, error: Exception) -> HttpResponse:
        log.exception("unexpected error at %s", request.path, exc_info=error)
        return _unexpected()


def _unexpected() -> JsonResponse:
    return problem(
        500,
        "unexpected",
        tr("Something broke here"),
        tr("It was written to the log. What you typed stays on the screen."),
    )


def server_error(request: HttpRequest) -> HttpResponse:
    """Django's handler500: errors outside the API's views, such as in a middleware."""
    error = sys.exc_info()[1]
    if isinstance(error, OperationalError | InterfaceError):
        return database_gone(request, error)
    return _unexpected()
