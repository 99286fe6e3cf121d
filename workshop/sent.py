"""What is sent to the API."""

from ninja import Schema
from pydantic import ConfigDict


class Sent(Schema):
    """What a request brings: a field that nothing reads is refused by name, not dropped without a word."""

    model_config = ConfigDict(extra="forbid")
