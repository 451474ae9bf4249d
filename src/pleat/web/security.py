"""Headers on every answer. No inline script or style anywhere, nothing from another origin."""

from __future__ import annotations

from typing import Final

from flask import Flask, Response

POLICY: Final = "; ".join(
    (
        "default-src 'none'",
        "script-src 'self'",
        "style-src 'self'",
        "img-src 'self' data:",
        "font-src 'self'",
        "connect-src 'self'",
        "form-action 'self'",
        "base-uri 'none'",
        "frame-ancestors 'none'",
        "manifest-src 'self'",
    )
)


def register(app: Flask) -> None:
    app.after_request(_headers)


def _headers(response: Response) -> Response:
    response.headers["Content-Security-Policy"] = POLICY
    response.headers["X-Content-Type-Options"] = "nosniff"
    response.headers["Referrer-Policy"] = "same-origin"
    if response.mimetype == "text/html":
        response.headers["Cache-Control"] = "no-store"
    return response
