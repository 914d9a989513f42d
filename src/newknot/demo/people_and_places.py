"""The logins of the demo world, as a table. Nobody and nothing in it is real."""

from dataclasses import dataclass, field

MAIL = "ilse@tallowpost.example"


@dataclass(frozen=True, slots=True)
class DemoLogin:
    """secret: a chosen text; empty for one drawn to `length`. age_days since it was set."""

    title: str
    user_name: str
    address: str
    folder: str
    age_days: int
    secret: str = ""
    length: int = 20
    importance: str = "normal"
    owner: str = ""
    tags: tuple[str, ...] = ()
    notes: str = ""
    fields: tuple[tuple[str, str], ...] = ()
    secret_fields: tuple[tuple[str, str], ...] = ()
    expires_in_days: int | None = None
    resets_by: str = ""
    second_factor: str = "none"
    code_key: str = ""
    earlier: tuple[tuple[str, int], ...] = field(default=())
    """(secret, age in days when it was set), oldest first; an empty text is drawn."""


STAGE, HOME, MONEY, SUPPLY, MAILS = "Stage work", "Household", "Money", "Suppliers", "Mail"

LOGINS = (
    DemoLogin(
        "Tallow Post",
        "ilse.quist",
        "https://tallowpost.example",
        MAILS,
        398,
        secret="FollowSpot!1979",
        importance="critical",
        tags=("mailbox",),
        notes="Most things send their reset letters here.",
        secret_fields=(("Answer: first theatre", "the one above the chandler's"),),
        earlier=(("Limelight1979", 1080),),
    ),
    DemoLogin(
        "Old Abbey practice rooms",
        "ilse",
        "https://oldabbey.example",
        HOME,
        310,
        secret="copper truss winter ledger",
        notes="Took the good one while none was at hand.",
    ),
    DemoLogin(
        "Fernbank Credit Union",
        "i.quist",
        "https://fernbank.example",
        MONEY,
        821,
        secret="limelight7",
        importance="critical",
        resets_by="Tallow Post",
        fields=(("Member number", "40 118 226"),),
        secret_fields=(("Telephone PIN", "704418"),),
    ),
    DemoLogin(
        "Slate Payroll",
        "quist-il",
        "https://slatepayroll.example",
        MONEY,
        1095,
        secret="Harwich2019",
        importance="high",
        owner="Maud Ferrier, accounts",
        resets_by="Tallow Post",
    ),
    DemoLogin(
        "Cuesheet Cloud",
        "ilse",
        "https://cuesheet.example",
        STAGE,
        250,
        secret="Barndoor2024",
        importance="high",
        resets_by="Tallow Post",
        tags=("shows",),
        earlier=(("Barndoor2022", 980), ("Barndoor2023", 610)),
    ),
    DemoLogin(
        "Cuesheet Cloud, shared board",
        "northlight-desk",
        "https://board.cuesheet.example",
        STAGE,
        120,
        owner="Northlight crew",
        tags=("shows", "shared"),
    ),
    DemoLogin(
        "Northlight Playhouse intranet",
        "quist",
        "https://intranet.northlight.example",
        STAGE,
        155,
        length=24,
        importance="high",
        second_factor="here",
        code_key="NRUW2ZLMNFTWQ5BAMJQXE3TEN5XXEIDGN5WGY33X",
        earlier=(("", 700), ("", 400)),
        notes="Asks for a change each spring.",
    ),
    DemoLogin(
        "Northlight Playhouse box office",
        "quist.i",
        "https://boxoffice.northlight.example",
        STAGE,
        310,
        secret="FollowSpot!1979",
    ),
    DemoLogin(
        "Harbour Dye Works",
        "ilse",
        "http://harbourdye.example",
        SUPPLY,
        1220,
        secret="qwertz7",
        importance="low",
    ),
    DemoLogin(
        "Cable and Clamp",
        MAIL,
        "https://cableandclamp.example",
        SUPPLY,
        702,
        secret="FollowSpot!1979",
        resets_by="Tallow Post",
    ),
    DemoLogin("Gelatine Filters Ltd", MAIL, "https://gelatinefilters.example", SUPPLY, 88),
    DemoLogin("Harrow Dimmers", "quist", "https://harrowdimmers.example", SUPPLY, 640, length=16),
    DemoLogin(
        "Harrow Dimmers, repairs",
        "quist-rep",
        "https://repairs.harrowdimmers.example",
        SUPPLY,
        640,
        length=16,
    ),
    DemoLogin("Moth Lane Lamps", MAIL, "https://mothlane.example", SUPPLY, 45),
    DemoLogin(
        "Ostler Van Hire",
        "ilse.quist",
        "https://ostlervans.example",
        SUPPLY,
        930,
        secret="dragonfly",
    ),
    DemoLogin("Two Rivers Timber", MAIL, "https://tworiverstimber.example", SUPPLY, 512),
    DemoLogin("Plumbline Scaffolds", MAIL, "https://plumbline.example", SUPPLY, 77, length=18),
    DemoLogin("Sable Curtain Makers", MAIL, "https://sablecurtains.example", SUPPLY, 366),
    DemoLogin("Brackwater Theatre", "iq", "https://brackwater.example", STAGE, 204),
    DemoLogin(
        "Corn Exchange Hall",
        "lighting",
        "https://cornexchange.example",
        STAGE,
        820,
        secret="Exchange12",
        owner="Corn Exchange crew",
        tags=("shared",),
    ),
    DemoLogin("The Little Drum", "quist", "https://littledrum.example", STAGE, 33),
    DemoLogin("Pierhead Opera", "i.quist", "https://pierhead.example", STAGE, 145, length=22),
    DemoLogin(
        "Withy Lane Festival",
        "crew-lx",
        "https://withylane.example",
        STAGE,
        505,
        owner="Festival crew",
        tags=("shared", "shows"),
        secret="festival2023",
    ),
    DemoLogin("Rook and Raven Tours", MAIL, "https://rookraven.example", STAGE, 190),
    DemoLogin(
        "Prompt Corner forum",
        "ilseq",
        "https://promptcorner.example",
        STAGE,
        1300,
        secret="iloveyou2",
        importance="low",
    ),
    DemoLogin("Union of Stage Electricians", "US-20418", "https://stageunion.example", STAGE, 260),
    DemoLogin("Fixture Library", MAIL, "https://fixturelibrary.example", STAGE, 61),
    DemoLogin("Plot Drawings", "ilse", "https://plotdrawings.example", STAGE, 402, length=24),
    DemoLogin("Rehearsal Room Keys", "quist", "https://roomkeys.example", STAGE, 95),
    DemoLogin(
        "Desk backup shelf",
        "lx",
        "https://shelf.quist-light.example",
        STAGE,
        15,
        length=28,
        importance="high",
    ),
    DemoLogin(
        "Quist Light web site",
        "ilse",
        "https://quist-light.example/admin",
        STAGE,
        730,
        importance="high",
        resets_by="Tallow Post",
    ),
    DemoLogin(
        "Quist Light web site, editor",
        "maud",
        "https://quist-light.example/admin",
        STAGE,
        210,
        owner="Maud Ferrier",
    ),
    DemoLogin(
        "Copperline Hosting",
        MAIL,
        "https://copperline.example",
        STAGE,
        728,
        length=26,
        importance="high",
        resets_by="Tallow Post",
    ),
    DemoLogin(
        "Name Registry",
        "IQ-5521",
        "https://nameregistry.example",
        STAGE,
        725,
        importance="critical",
        resets_by="Tallow Post",
    ),
    DemoLogin(
        "Fernbank savings",
        "i.quist.2",
        "https://savings.fernbank.example",
        MONEY,
        340,
        importance="critical",
        resets_by="Tallow Post",
    ),
    DemoLogin(
        "Penstock Pension",
        "QUIST0077",
        "https://penstock.example",
        MONEY,
        590,
        secret="Harwich2019",
        importance="high",
    ),
    DemoLogin(
        "Tithe Office",
        "77-204-118",
        "https://titheoffice.example",
        MONEY,
        118,
        length=16,
        importance="critical",
        expires_in_days=-12,
    ),
    DemoLogin("Kiln Street Insurance", MAIL, "https://kilnstreet.example", MONEY, 455),
    DemoLogin(
        "Marrow Cards", "ilse.quist", "https://marrowcards.example", MONEY, 205, importance="high"
    ),
    DemoLogin(
        "Penny Ledger books", MAIL, "https://pennyledger.example", MONEY, 280, expires_in_days=20
    ),
    DemoLogin(
        "Old Quay Mail",
        "quist79",
        "https://oldquay.example",
        MAILS,
        1600,
        secret="Limelight1979",
        tags=("mailbox",),
        importance="high",
    ),
    DemoLogin(
        "Tallow Post, work",
        "light@quist-light.example",
        "https://tallowpost.example",
        MAILS,
        301,
        length=24,
        tags=("mailbox",),
        importance="critical",
        resets_by="Tallow Post",
    ),
    DemoLogin(
        "Gasworks Energy", "ilse", "https://gasworks.example", HOME, 860, secret="sunflower1"
    ),
    DemoLogin("Weir Water", "Q-118-224", "https://weirwater.example", HOME, 333),
    DemoLogin("Bellows Broadband", MAIL, "https://bellows.example", HOME, 410, importance="high"),
    DemoLogin(
        "Bellows router",
        "admin",
        "http://192.168.7.1",
        HOME,
        410,
        length=18,
        notes="Sticker is under the box.",
    ),
    DemoLogin(
        "Parish Library",
        "2204417",
        "https://parishlibrary.example",
        HOME,
        970,
        secret="4417",
        importance="low",
    ),
    DemoLogin("Saffron Grocer", MAIL, "https://saffrongrocer.example", HOME, 150),
    DemoLogin("Cartwheel Cycles", MAIL, "https://cartwheel.example", HOME, 488, length=14),
    DemoLogin(
        "Dr Amsel's practice",
        "quist.ilse",
        "https://amselpractice.example",
        HOME,
        222,
        importance="high",
    ),
    DemoLogin(
        "Alder Street School", "parent-418", "https://alderstreet.example", HOME, 64, owner="Joost"
    ),
    DemoLogin(
        "Alder Street School, meals",
        "parent-418",
        "https://meals.alderstreet.example",
        HOME,
        64,
        owner="Joost",
    ),
    DemoLogin("Night Ferry", MAIL, "https://nightferry.example", HOME, 540),
    DemoLogin("Branch Line Trains", MAIL, "https://branchline.example", HOME, 77),
    DemoLogin(
        "Attic Auctions",
        "limelight",
        "https://atticauctions.example",
        HOME,
        1011,
        secret="FollowSpot!1978",
        importance="low",
    ),
    DemoLogin("Thimble Haberdashery", MAIL, "https://thimble.example", HOME, 365),
    DemoLogin("Wren Music", "ilse", "https://wrenmusic.example", HOME, 710, length=16),
    DemoLogin(
        "Lantern Films",
        "quisthouse",
        "https://lanternfilms.example",
        HOME,
        230,
        owner="Joost",
        tags=("shared",),
        secret="family123",
    ),
    DemoLogin("Ember Thermostat", MAIL, "https://ember.example", HOME, 590),
    DemoLogin(
        "Garden Allotment",
        "plot-17",
        "https://allotment.example",
        HOME,
        845,
        secret="tomatoes",
        importance="low",
    ),
    DemoLogin("Postbox Parcels", MAIL, "https://postboxparcels.example", HOME, 19),
    DemoLogin(
        "Chess by Letter",
        "rookend",
        "https://chessbyletter.example",
        HOME,
        1100,
        length=12,
        importance="low",
    ),
    DemoLogin("Tide Tables", MAIL, "http://tidetables.example", HOME, 480, importance="low"),
)

PRACTICE = (
    DemoLogin(
        "Gantry Rentals",
        "ilse.quist",
        "http://gantryrentals.localhost:{port}/",
        SUPPLY,
        402,
        secret="FollowSpot1979",
        importance="high",
        tags=("practice",),
        resets_by="Tallow Post",
        earlier=(("Gantry2021", 1010), ("Gantry2022", 760)),
    ),
    DemoLogin(
        "Lumen Society",
        "iqlight",
        "http://lumensociety.localhost:{port}/",
        STAGE,
        540,
        secret="Barndoor2023",
        tags=("practice",),
        earlier=(("Barndoor2021", 1000),),
    ),
    DemoLogin(
        "Papertape Licensing",
        "quist",
        "http://papertape.localhost:{port}/",
        STAGE,
        310,
        length=20,
        second_factor="elsewhere",
        tags=("practice",),
    ),
)

BREACHED = (("limelight7", 1_500), ("Harwich2019", 12), ("dragonfly", 40_000))
"""Chosen secrets of this world that the practice list holds, with their counts."""

TRADE_WORDS = ("limelight7", "gobo", "spigot", "fresnel", "houselights", "strikeplate")
HELD_ELSEWHERE = (("limelight7", 900), ("tomatoes", 5_200), ("Barndoor2023", 3))
"""What the list held elsewhere has of this world."""
NOTICES = (
    ("harrowdimmers.example", 120, ("passwords", "mail addresses")),
    ("fernbank.example", 2_000, ("passwords",)),
    ("nightferry.example", 60, ("mail addresses", "names")),
    ("unknownplace.example", 30, ("passwords",)),
)
"""(site, days ago, what was taken)."""
