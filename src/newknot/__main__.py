"""The program: `serve`, `demo`, `corpus`, `openapi`. The only reader of the command line.

Each command imports what it needs when it is wanted: what is refused is refused at once.
"""

import argparse
import gc
import json
import os
import signal
import socket
import sys
from datetime import date
from pathlib import Path

from newknot.core.errors import NewKnotError
from newknot.edge import data_folder, harden, runtime_folder, state_folder
from newknot.store.errors import VaultFolderRefused, VaultInUse
from newknot.store.vault_lock import VaultLock
from newknot.store.vault_place import SAYS, place_doubts

DEFAULT_PORT = 47806


def main() -> None:
    """Runs one command; every expected failure is one sentence and a non-zero exit."""
    arguments = _parser().parse_args()
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))  # so that what was begun is ended
    try:
        arguments.command(arguments)
    except VaultInUse as error:
        where = error.data["address"] or "another window of this machine"
        sys.exit(f"This vault is open already: {where}")
    except VaultFolderRefused as error:
        sys.exit(f"The vault's folder cannot be used: {error.data['reason']}.")
    except NewKnotError as error:
        details = ", ".join(f"{key}: {value}" for key, value in error.data.items())
        sys.exit(f"{error.code.replace('_', ' ')} {details}".strip())
    except OSError as error:
        sys.exit(f"Cannot go on: {error.strerror or error}.")


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="newknot", description=__doc__)
    commands = parser.add_subparsers(required=True)
    serve = commands.add_parser("serve", help="open your own vault")
    serve.add_argument("--vault", type=Path, help="the vault file")
    serve.add_argument("--port", type=int, default=DEFAULT_PORT)
    serve.add_argument("--web", type=Path, default=_web_folder())
    serve.add_argument("--state", type=Path, help="the folder of anchors")
    serve.add_argument(
        "--corpus", type=Path, action="append", help="a corpus file, instead of those built here"
    )
    serve.add_argument("--open", action="store_true", help="open it in your browser")
    serve.set_defaults(command=_serve)
    demo = commands.add_parser("demo", help="the made-up world, with practice sites")
    demo.add_argument("--folder", type=Path, default=Path("var/demo"))
    demo.add_argument("--port", type=int, default=DEFAULT_PORT)
    demo.add_argument("--sites-port", type=int, default=DEFAULT_PORT + 1)
    demo.add_argument("--web", type=Path, default=_web_folder())
    demo.add_argument("--open", action="store_true", help="open it in your browser")
    demo.set_defaults(command=_demo)
    corpus = commands.add_parser("corpus", help="breach corpora: build, list, verify")
    acts = corpus.add_subparsers(required=True)
    build = acts.add_parser("build", help="from lists of HASH[:count], or of plain words")
    build.add_argument("lists", type=Path, nargs="+")
    build.add_argument("--words", action="store_true", help="the lists hold plain words")
    build.add_argument("--name", required=True)
    build.add_argument("--date", type=date.fromisoformat, required=True)
    build.add_argument("--size", type=int, nargs="+", help="the bytes of each list, where known")
    build.add_argument("--into", type=Path, help="the corpus file")
    build.set_defaults(command=_corpus_build)
    listed = acts.add_parser("list", help="the corpora that are here")
    listed.set_defaults(command=_corpus_list)
    verify = acts.add_parser("verify", help="reads corpora against their checksums")
    verify.add_argument("files", type=Path, nargs="+")
    verify.set_defaults(command=_corpus_verify)
    openapi = commands.add_parser("openapi", help="print the OpenAPI document")
    openapi.set_defaults(command=_openapi)
    return parser


def _serve(arguments: argparse.Namespace) -> None:
    harden()
    lock = _held(arguments.vault or data_folder() / "own.vault", arguments.port)
    gc.disable()
    from newknot.serving import run_server
    from newknot.store.corpus import Corpus, open_corpora

    corpora, refused = open_corpora(_corpora_folder())
    if arguments.corpus:
        corpora, refused = [Corpus.open(one) for one in arguments.corpus], []
    run_server(
        lock,
        port=arguments.port,
        web_folder=arguments.web,
        anchors=arguments.state or state_folder(),
        corpora=corpora,
        refused_corpora=refused,
        corpora_folder=None if arguments.corpus else _corpora_folder(),
        says="",
        opens_browser=arguments.open,
    )


def _demo(arguments: argparse.Namespace) -> None:
    harden()
    folder: Path = arguments.folder.absolute()
    lock = _held(folder / "ilse-quist.vault", arguments.port)
    gc.disable()
    from newknot.demo.world import PASSPHRASE, PracticeSites, prepare, write_outside
    from newknot.edge import SystemClock
    from newknot.serving import run_server
    from newknot.store.corpus import Corpus

    sites = PracticeSites(folder, port=arguments.sites_port)
    write_outside(sites, now=SystemClock().now())
    with sites:
        prepared = prepare(folder, sites=sites, clock=SystemClock())
        run_server(
            lock,
            port=arguments.port,
            web_folder=arguments.web,
            anchors=folder / "state",
            corpora=[Corpus.open(one) for one in prepared.corpus_paths],
            refused_corpora=[],
            corpora_folder=None,
            says=f"Passphrase of the demo vault:  {PASSPHRASE}\nPractice sites:  {sites.listing}",
            opens_browser=arguments.open,
        )


def _held(vault: Path, port: int) -> VaultLock:
    """The vault's lock, before anything slow: links are followed once, for what lies beside too."""
    require_free(port)
    address = f"http://127.0.0.1:{port}/"
    lock = VaultLock(vault.resolve(), address=address, addresses=runtime_folder())
    for doubt in place_doubts(lock.vault):
        print(f"Beware: {SAYS[doubt]} ({lock.vault}).", file=sys.stderr, flush=True)
    return lock


def require_free(port: int) -> None:
    """Ends with a sentence where the port is taken."""
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except OSError:
            sys.exit(f"Port {port} is in use: stop what holds it, or choose another by --port.")


def _web_folder() -> Path:
    """The built interface: within the installed package, or as a checkout builds it."""
    within = Path(__file__).parent / "web"
    return within if within.is_dir() else Path("web/dist")


def _corpora_folder() -> Path:
    return data_folder() / "corpora"


def _corpus_build(arguments: argparse.Namespace) -> None:
    from newknot.store.corpus import SUFFIX
    from newknot.store.corpus_build import CorpusBuildStopped, HashList, build_corpus

    target = arguments.into
    if target is None:
        _corpora_folder().mkdir(parents=True, exist_ok=True, mode=0o700)
        target = _corpora_folder() / (arguments.lists[0].stem + SUFFIX)
    sizes = arguments.size or [None] * len(arguments.lists)
    if len(sizes) != len(arguments.lists):
        sys.exit("--size needs one number for each list.")
    stopping: list[int] = []
    signal.signal(signal.SIGINT, lambda *_: stopping.append(1))
    signal.signal(signal.SIGTERM, lambda *_: stopping.append(1))

    def progress(what: str, done: int, total: int) -> bool:
        if sys.stderr.isatty():
            print(f"\r{what} {100 * done // max(1, total)} % ", end="", file=sys.stderr, flush=True)
        return not stopping

    lists = [
        HashList(path, words=arguments.words, size=size)
        for path, size in zip(arguments.lists, sizes, strict=True)
    ]
    try:
        built = build_corpus(
            lists, target, name=arguments.name, dated_on=arguments.date, progress=progress
        )
    except CorpusBuildStopped:
        sys.exit("Stopped. The same command goes on from where it was.")
    title = built.title
    print(f"{target}: {title.name} of {title.dated_on}, {title.unique_count:,} secrets")
    for name, offset in built.bad:
        print(f"passed over: {name}, the line at byte {offset:,}", file=sys.stderr)
    if built.bad_count > len(built.bad):
        print(f"and {built.bad_count - len(built.bad):,} more", file=sys.stderr)


def _corpus_list(arguments: argparse.Namespace) -> None:
    from newknot.store.corpus import open_corpora

    corpora, refused = open_corpora(_corpora_folder())
    for one in corpora:
        title = one.title
        print(f"{one.path}: {title.name} of {title.dated_on}, {title.unique_count:,} secrets")
    for name, reason in refused:
        print(f"{_corpora_folder() / name}: {reason}")


def _corpus_verify(arguments: argparse.Namespace) -> None:
    from newknot.store.corpus import Corpus

    for path in arguments.files:
        Corpus.open(path).verify()
        print(f"{path}: whole")


def _openapi(arguments: argparse.Namespace) -> None:
    from newknot.api.app import make_api
    from newknot.crypto import INTERACTIVE
    from newknot.edge import SystemClock, SystemRandom
    from newknot.usecases.vault.keeper import Keeper

    keeper = Keeper(
        Path(os.devnull),
        state_folder=Path(os.devnull),
        backup_folder=Path(os.devnull),
        clock=SystemClock(),
        random=SystemRandom(),
        parameters=INTERACTIVE,
        corpora=[],
    )
    print(json.dumps(make_api(keeper, port=DEFAULT_PORT).openapi(), indent=1, sort_keys=True))


if __name__ == "__main__":
    main()
