"""The published schema, made ready once: making it anew for every file takes a second."""

from __future__ import annotations

import jsonschema

from pleat.core.document.bookfile import book_schema

FITS = jsonschema.Draft202012Validator(book_schema())
