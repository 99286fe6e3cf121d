"""What is sent to the API."""

from pydantic import BaseModel, ConfigDict


class Sent(BaseModel):
    """What a request brings: a field that nothing reads is refused by name, not dropped without a word.

    Read from JSON and nothing else: the framework's own schema would look at every field a second time for
    what a row of the database may hold.
    """

    model_config = ConfigDict(extra="forbid")
