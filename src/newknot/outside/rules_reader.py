"""A program of its own: reads the rules that a form of a foreign page states, and prints them.

It runs without keys, under limits of time and memory: patterns may be made to keep a reader busy.
"""

import json
import resource
import sys
from dataclasses import asdict

from newknot.core.policy.rules_text import TEXT_LIMIT, read_rules

CPU_S = 2
MEMORY_BYTES = 512 << 20


def main() -> None:
    """Once, then ends."""
    resource.setrlimit(resource.RLIMIT_CPU, (CPU_S, CPU_S))
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_BYTES, MEMORY_BYTES))
    text = sys.stdin.buffer.read(4 * TEXT_LIMIT).decode("utf-8", "replace")
    json.dump(asdict(read_rules(text)), sys.stdout)


if __name__ == "__main__":
    main()
