"""What has been done."""

from __future__ import annotations

from typing import Annotated

from pydantic import AfterValidator, Field

from pleat.core.base.fields import Record, Word, plain_text


class Bench(Record):
    """Pleat 8: ticked steps, each with the signature of the figures it was ticked on."""

    ticks: dict[Word, Annotated[str, Field(max_length=20_000), AfterValidator(plain_text)]] = Field(
        default_factory=dict, max_length=200
    )
