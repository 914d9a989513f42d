"""Stand-ins for the outside: practice sites. A separate application, importing nothing of ours."""
