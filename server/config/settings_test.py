"""Settings of the tests: the real ones, with a fast password hash and no pool."""

import atexit
import os
import shutil
import tempfile
from pathlib import Path

os.environ.setdefault("BEAD_SECRET_KEY", "only-for-tests")
# The tests of the core need no database; those of the server are given one by ./bead test.
os.environ.setdefault("BEAD_DATABASE_URL", "postgresql://nobody@127.0.0.1:1/none")

from config.settings import *  # noqa: F403
from config.settings import DATABASES

DEMO = True
PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
PRINT_APART = False
WORK_APART = False
# Tests hold their connection in a transaction; a pool would hand out others. A busy machine may be slow.
DATABASES["default"]["OPTIONS"] = {"connect_timeout": 60}

MEDIA_ROOT = Path(tempfile.mkdtemp(prefix="bead-test-files-"))
atexit.register(shutil.rmtree, MEDIA_ROOT, ignore_errors=True)
