"""The rules of the job, pure: no disk, clock, randomness or interface of its own."""
