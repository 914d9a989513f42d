"""What reaches out of this machine: only what the user has switched on."""
