"""Settings for the tests: a database file of their own, without the write-ahead log."""

import os
import tempfile

import hypothesis

os.environ.setdefault("PROUD_RAKE_DATA", tempfile.mkdtemp(prefix="proud-rake-test-"))

from workshop.settings import *  # noqa: F403
from workshop.settings import DATABASES

# The log's side files would not be cloned for parallel runs.
DATABASES["default"]["OPTIONS"] = {
    "transaction_mode": "IMMEDIATE",
    "timeout": 20,
    "init_command": "PRAGMA journal_mode=MEMORY; PRAGMA synchronous=OFF;",
}

# A loaded machine is slow, which is no fault of what is tried: bounded runs measure time, tests do not.
hypothesis.settings.register_profile(
    "loaded", deadline=None, suppress_health_check=[hypothesis.HealthCheck.too_slow]
)
hypothesis.settings.load_profile("loaded")
