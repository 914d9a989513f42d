"""A feed of made-up breach notices (JSON Feed 1.1), from a file."""

import json
from pathlib import Path

from starlette.applications import Starlette
from starlette.requests import Request
from starlette.responses import Response
from starlette.routing import Route

HOST = "notices.localhost"


def notice_app(path: Path) -> Starlette:
    """Serves the notices of a JSON file, a list of items, as they are at each request."""

    async def feed(request: Request) -> Response:
        document = {
            "version": "https://jsonfeed.org/version/1.1",
            "title": "The Wardrobe Whistle: what was taken where",
            "items": json.loads(path.read_text("utf-8")),
        }
        return Response(json.dumps(document), media_type="application/feed+json")

    return Starlette(routes=[Route("/feed.json", feed)])
