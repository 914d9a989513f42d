"""What lies in the memory of a process, for whoever may read it."""

from collections.abc import Iterator


def writable_memory(pid: int) -> Iterator[bytes]:
    """Each stretch of it."""
    with open(f"/proc/{pid}/maps") as maps, open(f"/proc/{pid}/mem", "rb", 0) as memory:
        for line in maps:
            span, rights = line.split()[:2]
            if "rw" not in rights or "[vvar" in line:
                continue
            start, end = (int(x, 16) for x in span.split("-"))
            try:
                memory.seek(start)
                yield memory.read(end - start)
            except (OSError, ValueError):
                continue


def memory_holds(pid: int, words: list[bytes]) -> set[bytes]:
    """Which of the words stand there."""
    return {word for body in writable_memory(pid) for word in words if word in body}
