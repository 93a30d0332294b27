"""The web server's own settings; what differs comes from the environment. Read by gunicorn, not by ./bead."""

import os
import resource

worker_class = "gthread"
workers = int(os.environ.get("BEAD_WORKERS", "2"))
threads = int(os.environ.get("BEAD_THREADS", "20"))
bind = f"127.0.0.1:{os.environ['BEAD_PORT']}"
preload_app = True
control_socket_disable = True
# Longer than nginx keeps an idle connection (60 s): a request must not meet one that is just being closed.
keepalive = 75
worker_connections = 1000
graceful_timeout = 5
timeout = 60
max_requests = 20_000
max_requests_jitter = 2_000
loglevel = "warning"
umask = 0o077
limit_request_line = 8190
limit_request_fields = 60

WORKER_MEMORY_MB = int(os.environ.get("BEAD_WORKER_MEMORY_MB", "4000"))


def post_worker_init(worker: object) -> None:
    """Start the process that sets sheets, so that the first one need not wait for it."""
    from apps.printing.apart import begin_early

    begin_early()


def post_fork(server: object, worker: object) -> None:
    """A ceiling for each worker: a request that wants more is refused, and nobody else notices."""
    ceiling = WORKER_MEMORY_MB * 1_000_000
    resource.setrlimit(resource.RLIMIT_AS, (ceiling, resource.RLIM_INFINITY))
