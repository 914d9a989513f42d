"""Which status each error answers with, and the one shape of every error answer."""

import logging

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.exceptions import HTTPException

from newknot.core.errors import NewKnotError

STATUS = {
    "field_invalid": 422,
    "secret_repeats": 422,
    "secret_breaks_policy": 422,
    "policy_invalid": 422,
    "passphrase_too_weak": 422,
    "passphrase_breached": 422,
    "passphrase_resembles": 422,
    "length_refused": 422,
    "space_empty": 422,
    "limit_not_met": 422,
    "space_too_costly": 422,
    "work_too_great": 422,
    "csv_refused": 422,
    "cxf_refused": 422,
    "bundle_refused": 422,
    "bundle_content_refused": 422,
    "bundle_closed": 403,
    "policy_file_refused": 422,
    "no_room": 422,
    "phrase_too_costly": 422,
    "not_worth_it": 422,
    "key_parameters_refused": 422,
    "hash_list_refused": 422,
    "feed_refused": 502,
    "mails_refused": 502,
    "outside_failed": 502,
    "service_off": 409,
    "drive_off": 409,
    "drive_running": 409,
    "drive_stopped": 409,
    "form_not_understood": 502,
    "corpus_build_stopped": 409,
    "session_unknown": 401,
    "proof_needed": 403,
    "wrong_passphrase": 403,
    "reveal_switched_off": 403,
    "record_missing": 404,
    "vault_missing": 404,
    "draw_unknown": 404,
    "import_unknown": 404,
    "import_stopped": 409,
    "nothing_held": 404,
    "backup_unknown": 404,
    "no_copy": 422,
    "backup_of_other_key": 409,
    "finding_unknown": 404,
    "earlier_held": 409,
    "rotation_open": 409,
    "share_wrong": 422,
    "sheets_void": 403,
    "picture_refused": 422,
    "picture_without_key": 422,
    "in_bin": 409,
    "changed_meanwhile": 409,
    "check_running": 409,
    "audit_stopped": 409,
    "event_refused": 409,
    "vault_exists": 409,
    "vault_newer": 409,
    "vault_read_only": 409,
    "vault_in_use": 409,
    "vault_busy": 409,
    "vault_locked": 423,
    "too_many_guesses": 429,
    # Damage: what the answer depends on is not what was written (RFC 4918).
    "vault_damaged": 424,
    "record_damaged": 424,
    "slot_damaged": 424,
    "seal_broken": 424,
    "corpus_invalid": 424,
    "backup_not_verified": 424,
    "backup_failed": 500,
    "vault_folder_refused": 507,
    "disk_full": 507,
    "disk_failed": 507,
}
"""Every error's code; a test holds this table complete."""

_log = logging.getLogger("newknot")


def install(app: FastAPI) -> None:
    """Handlers that answer {code, data} and never echo what was sent."""

    @app.exception_handler(NewKnotError)
    def expected(request: Request, error: NewKnotError) -> JSONResponse:
        return JSONResponse({"code": error.code, "data": error.data}, STATUS[error.code])

    @app.exception_handler(RequestValidationError)
    def invalid(request: Request, error: RequestValidationError) -> JSONResponse:
        fields = [_place(one) for one in error.errors()[:20]]
        return JSONResponse({"code": "request_invalid", "data": {"fields": fields}}, 422)

    @app.exception_handler(HTTPException)
    def refused(request: Request, error: HTTPException) -> JSONResponse:
        code = {404: "not_found", 405: "method_refused"}.get(error.status_code, "refused")
        return JSONResponse({"code": code, "data": {}}, error.status_code)

    @app.exception_handler(Exception)
    def unexpected(request: Request, error: Exception) -> JSONResponse:
        # Only the kind of error and where it arose: its text could quote what was sent.
        frame = error.__traceback__
        while frame is not None and frame.tb_next is not None:
            frame = frame.tb_next
        where = f"{frame.tb_frame.f_code.co_filename}:{frame.tb_lineno}" if frame else "?"
        _log.error("%s at %s", type(error).__name__, where)
        return JSONResponse({"code": "unexpected", "data": {}}, 500)


def _place(one: dict[str, object]) -> dict[str, str]:
    """Where a request is wrong and how. A key that is not known is the sender's text: left out."""
    place = list(one["loc"])  # type: ignore[call-overload]
    if one["type"] == "extra_forbidden":
        place = place[:-1]
    if place[:1] == ["body"]:
        place = place[1:]
    return {"field": ".".join(map(str, place)), "problem": str(one["type"])}
