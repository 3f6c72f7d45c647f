"""How long a piece of work takes."""
import time


def timed(work):
    """Seconds, and what the work returns."""
    begin = time.perf_counter()
    result = work()
    return time.perf_counter() - begin, result
