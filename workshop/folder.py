"""The data folder: made, kept to its owner, held by one server; what is wrong with it in plain words."""

from __future__ import annotations

import errno
import fcntl
import os
import secrets
import shutil
import time
from pathlib import Path

NEARLY_FULL = 300_000_000
"""Bytes free below which makers are warned: room for some dozens of backups, or years of pieces."""
PRIVATE = ("proud-rake.sqlite3*", "secret-key", "workshop.log*", "*.lock", "backups")


def words_for(error: OSError, folder: Path) -> str:
    """What an error of the file system means for a maker, and what to do about it."""
    whose = f"the data folder {folder}"
    if error.errno == errno.ENOSPC:
        return f"The disk that holds {whose} is full. Make room on it, then start again."
    if error.errno == errno.EROFS:
        return f"The disk that holds {whose} can only be read. Make it writable, or name another folder."
    if error.errno in (errno.EACCES, errno.EPERM):
        return (
            f"This account may not write in {whose}. Give the folder to the account that runs the "
            "workshop, or name another one with DATA=FOLDER."
        )
    if error.errno in (errno.EEXIST, errno.ENOTDIR):
        return f"Where {whose} should be is a file. Move it away, or name another folder with DATA=FOLDER."
    return f"The workshop cannot work in {whose}: {error.strerror or error}."


def words_for_file(error: OSError, file: Path) -> str:
    """The same of a file the maker names, which may lie anywhere."""
    no_folder = f"{file.parent} is a file, not a folder."
    may_not = f"This account may not write in {file.parent}."
    said = {
        errno.ENOSPC: f"The disk that holds {file.parent} is full.",
        errno.EROFS: f"The disk that holds {file.parent} can only be read.",
        errno.EACCES: may_not,
        errno.EPERM: may_not,
        errno.ENOENT: f"There is no folder {file.parent}.",
        errno.EEXIST: no_folder,
        errno.ENOTDIR: no_folder,
    }.get(error.errno or 0, f"{file.name} could not be written: {error.strerror or error}.")
    return f"{said} Name another place for it."


def open_folder(folder: Path) -> Path:
    """The folder, made for its owner alone where there is none; SystemExit in plain words otherwise."""
    try:
        folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    except OSError as error:
        raise SystemExit(words_for(error, folder)) from None
    return folder


def secret_of(folder: Path) -> str:
    """The installation's own key, made at its first start and kept beside its data.

    Written whole or not at all: it gets its name only when it is on the disk, and of two who begin at
    once the first one's key is everybody's. A key without a letter in it was lost in a power cut.
    """
    kept = folder / "secret-key"
    try:
        if not kept.exists() or not kept.read_text().strip():
            fresh = folder / f"secret-key.{secrets.token_hex(4)}"
            handle = os.open(fresh, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
            with os.fdopen(handle, "w") as file:
                file.write(secrets.token_urlsafe(50))
                file.flush()
                os.fsync(file.fileno())
            if kept.exists() and not kept.read_text().strip():
                kept.unlink()
            try:
                os.link(fresh, kept)
            except FileExistsError:
                pass
            finally:
                fresh.unlink()
        return kept.read_text().strip()
    except OSError as error:
        raise SystemExit(words_for(error, folder)) from None


def keep_private(folder: Path) -> None:
    """Take every right on the maker's data from everybody but the owner."""
    for pattern in PRIVATE:
        for path in folder.glob(pattern):
            path.chmod(0o700 if path.is_dir() else 0o600)


def cannot_write(folder: Path) -> OSError | None:
    """The error that writing into the folder meets, or None where what is written is on the disk."""
    trial = folder / f"trial.{secrets.token_hex(4)}"
    try:
        with open(trial, "xb") as file:
            file.write(bytes(65_536))
            file.flush()
            os.fsync(file.fileno())
    except OSError as error:
        return error
    finally:
        trial.unlink(missing_ok=True)
    return None


def free_bytes(folder: Path) -> int:
    """Bytes that may still be written on the folder's disk."""
    return shutil.disk_usage(folder).free


def nearly_full(folder: Path) -> str:
    """The warning makers see before the disk is full; empty while there is room."""
    free = free_bytes(folder)
    if free >= NEARLY_FULL:
        return ""
    return (
        f"The workshop's disk is nearly full: {free / 1e6:.0f} MB are left. "
        "Make room on it soon; what is saved already is safe."
    )


def hold(folder: Path, patience: float = 5.0) -> int | None:
    """The folder's lock, held until this process and all that it becomes end; None where another holds it.

    Waits `patience` seconds for a server that is just ending.
    """
    handle = os.open(folder / "serving.lock", os.O_RDWR | os.O_CREAT, 0o600)
    end = time.monotonic() + patience
    while True:
        try:
            fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            if time.monotonic() >= end:
                os.close(handle)
                return None
            time.sleep(0.1)
        else:
            os.set_inheritable(handle, True)
            return handle
