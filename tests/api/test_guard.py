"""What the gate refuses of one request by its headers, at each bound."""

from newknot.api.guard import Guard

HERE, OWN = [(b"host", b"127.0.0.1:9")], [(b"origin", b"http://127.0.0.1:9")]
LARGE = {
    "/api/logins": 1 << 20, "/api/imports/a/apply": 1 << 20, "/api/vault/place": 256 << 20,
    "/api/bundles": 256 << 20, "/api/imports": 21 << 20,
    "/api/logins/a/second-factor/picture": 9 << 20,
}  # fmt: skip


def refusal(path: str, *headers: tuple[bytes, bytes]) -> tuple[int, str] | None:
    async def never(*_: object) -> None: ...

    return Guard(never, port=9)._refusal({"path": path, "headers": headers})


def test_a_header_that_stands_twice_is_none_and_each_bound_is_where_it_is_said() -> None:
    assert refusal("/api/x", *HERE, *OWN) is None
    assert refusal("/api/x", *HERE, *HERE, *OWN) == (421, "host_refused")
    assert refusal("/api/x", *HERE, *OWN, *OWN) == (403, "origin_refused")
    for path, most in LARGE.items():
        for size, found in ((most, None), (most + 1, (413, "body_too_large"))):
            length = (b"content-length", str(size).encode())
            assert refusal(path, *HERE, *OWN, length) == found, path
            assert refusal(path, *HERE, *OWN, length, length) == (400, "length_required")
