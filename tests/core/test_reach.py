"""What falls with what: against every path tried out, and without a blow-up."""

import time
from itertools import pairwise, product
from random import Random

from newknot.core.audit.mailboxes import Reset, resets
from newknot.core.audit.reach import CordKind, Fall, Group, Reach
from tests.core.test_audit import login


def tried_out(groups: list[Group], links: list[Reset], names: list[str]) -> dict[str, set[str]]:
    """All that each name reaches, by closing the relation until nothing is added."""
    falls = {name: {name} for name in names}
    direct = {(a, b) for g in groups for a, b in product(g.login_ids, repeat=2)}
    direct |= {(link.by, link.of) for link in links}
    grew = True
    while grew:
        grew = False
        for (a, b), name in product(direct, names):
            if a in falls[name] and b not in falls[name]:
                falls[name].add(b)
                grew = True
    return falls


def test_counts_and_paths_are_those_of_every_path_tried_out() -> None:
    random = Random(17)
    names = [f"n{at}" for at in range(12)]
    for _ in range(60):
        kinds = [CordKind.SAME, CordKind.SIMILAR]
        groups = [
            Group(random.choice(kinds), tuple(random.sample(names, random.randint(2, 4))))
            for _ in range(random.randint(0, 4))
        ]
        pairs = [random.sample(names, 2) for _ in range(8)]
        links = [Reset(by, of, is_guess=False) for by, of in pairs]
        truth = tried_out(groups, links, names)
        reach = Reach(groups, links)
        counts = reach.counts()
        for name in names:
            falls = [fall.login_id for fall in reach.falls_with(name)]
            assert len(set(falls)) == len(falls)
            assert {name, *falls} == truth[name]
            assert counts.get(name, 0) == len(truth[name]) - 1


def test_the_path_says_by_what_and_after_whom() -> None:
    groups = [Group(CordKind.SAME, ("bank", "forum"))]
    reach = Reach(groups, [Reset("mail", "forum", is_guess=False)])
    assert reach.falls_with("mail") == [
        Fall("forum", CordKind.RESETS, "mail"),
        Fall("bank", CordKind.SAME, "forum"),
    ]
    assert [f.login_id for f in reach.falls_with("bank")] == ["forum"]


def test_mailboxes_are_told_by_addresses_where_the_user_named_none() -> None:
    mail = login("mail", "x", user_name="ilse", address="https://tallowpost.example")
    other = login("other", "x", user_name="ilse@tallowpost.example")
    named = login("named", "x", user_name="ilse@tallowpost.example", resets_by="other")
    gone = login("gone", "x", user_name="iq", resets_by="nobody")
    assert resets([mail, other, named, gone]) == [
        Reset("mail", "other", is_guess=True),
        Reset("other", "named", is_guess=False),
    ]
    second = login("second", "x", user_name="ilse", address="https://tallowpost.example")
    assert resets([mail, second, other]) == []
    many = [login(f"n{n}", "x", user_name=f"ilse@post{n}.example") for n in range(60)]
    abroad = login("abroad", "x", user_name="ilse", address="https://böhne.example")
    by = login("by", "x", user_name="ilse@xn--bhne-5qa.example")
    assert resets([mail, abroad, by, other, *many]) == [
        Reset("abroad", "by", is_guess=True),
        Reset("mail", "other", is_guess=True),
    ]


def test_ten_thousand_tied_logins_are_counted_in_bounded_time() -> None:
    names = [f"n{at:05}" for at in range(10_000)]
    links = [Reset(a, b, is_guess=False) for a, b in pairwise(names)]
    began = time.process_time()
    assert Reach([Group(CordKind.SAME, tuple(names))], []).counts()["n00000"] == 9_999
    chain = Reach([], links).counts()
    assert (chain["n00000"], chain["n09999"]) == (9_999, 0)
    assert time.process_time() - began < 5
