"""The use cases over HTTP: parse, call, shape."""
