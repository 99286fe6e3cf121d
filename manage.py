#!/usr/bin/env python3
"""The project's command line."""

import os
import sys


def main() -> None:
    """Run one management command."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "workshop.settings")
    # The drawings multiply small matrices: waking a second thread for them costs more than it gives.
    os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
    from django.core.management import execute_from_command_line

    execute_from_command_line(sys.argv)


if __name__ == "__main__":
    main()
