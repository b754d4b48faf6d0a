"""What a worker in a process of its own says when it leaves. It stands alone, so that a worker
loads nothing that it does not need."""

CALM = 0  # exit code of a file that was read, or refused in words
