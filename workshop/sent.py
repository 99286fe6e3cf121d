"""What is sent to the API, and which one of a piece it is about."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from splay.piece import MOST_MADE

Copy = Annotated[int, Field(ge=1, le=MOST_MADE)]
"""Which one of a piece that is made several times."""
FIRST: Copy = 1
"""Where nothing says which one; the only one where it is made once."""


class Sent(BaseModel):
    """What a request brings: a field that nothing reads is refused by name, not dropped without a word.

    Read from JSON and nothing else: the framework's own schema would look at every field a second time for
    what a row of the database may hold.
    """

    model_config = ConfigDict(extra="forbid")
