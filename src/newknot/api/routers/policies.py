"""The library of site policies."""

from typing import Literal

from fastapi import APIRouter, Request, Response
from starlette.concurrency import run_in_threadpool

from newknot.api.deps import Work, WorkDep
from newknot.api.schemas.policies import (
    ConflictOut,
    PartedPolicyOut,
    PoliciesBroughtOut,
    PolicyIn,
    PolicyList,
    PolicyOut,
    RulesIn,
    RulesOut,
    UsedByOut,
    WorthOut,
)
from newknot.core.errors import NewKnotError
from newknot.core.generate import conflicts
from newknot.core.policy import LOOK_ALIKES, NamedPolicy, SitePolicy
from newknot.core.policy.rules_text import read_rules, write_rules
from newknot.exchange.policies_json import read_policies, write_policies
from newknot.exchange.policies_text import (
    is_policies_text,
    read_policies_text,
    write_policies_text,
)
from newknot.usecases import policies as use
from newknot.usecases.revisions import revision_of, unless_changed

router = APIRouter(prefix="/policies", tags=["policies"])


@router.get("")
def list_policies(work: WorkDep) -> PolicyList:
    """The library by name."""
    return PolicyList(
        policies=[_shaped(named, work) for named in use.list_policies(work.vault)],
        default=use.default_policy().to_dict(),
        look_alikes=LOOK_ALIKES,
    )


@router.post("", status_code=201)
def add_policy(body: PolicyIn, work: WorkDep) -> PolicyOut:
    """A new policy, typed."""
    return _save(None, body, work)


@router.post("/read")
def read_pasted(body: RulesIn, work: WorkDep) -> RulesOut:
    """What can be taken for sure from a site's own words. Nothing is kept."""
    read = read_rules(body.text)
    return RulesOut(policy=SitePolicy.from_dict(read.document).to_dict(), unsure=list(read.unsure))


@router.get("/file")
def policies_as_file(work: WorkDep, form: Literal["json", "rules"] = "json") -> Response:
    """The whole library as a file: JSON, or rule attribute text. No secret is in it."""
    library = use.list_policies(work.vault)
    if form == "rules":
        body, kind, end = write_policies_text(library), "text/plain; charset=utf-8", "txt"
    else:
        body, kind, end = write_policies(library), "application/json", "json"
    name = f'attachment; filename="site-policies.{end}"'
    return Response(body, media_type=kind, headers={"content-disposition": name})


@router.post("/file")
async def bring_policies(
    request: Request, work: WorkDep, replaces: bool = False
) -> PoliciesBroughtOut:
    """Takes in the policies of a file given as the raw body, JSON or rule attribute text, all
    together or none.
    """
    body = await request.body()

    def bring() -> use.PoliciesBrought:
        entries = (read_policies_text if is_policies_text(body) else read_policies)(body)
        return use.bring_policies(work.vault, entries, replaces=replaces, now=work.now)

    brought = await run_in_threadpool(bring)
    return PoliciesBroughtOut(
        added=list(brought.added),
        same=list(brought.same),
        differing=list(brought.differing),
        parted=[
            PartedPolicyOut(
                policy_id=here.policy_id,
                domains=list(there.domains),
                policy=there.policy.to_dict(),
                offers_second_factor=there.offers_second_factor,
                source=there.source,
                changed_at=there.changed_at,
            )
            for here, there in brought.parted
        ],
    )


@router.put("/{policy_id}")
def change_policy(policy_id: str, body: PolicyIn, work: WorkDep) -> PolicyOut:
    """A policy as changed."""
    with unless_changed(work.vault, lambda: revision_of(work.vault, policy_id), body.revision):
        return _save(policy_id, body, work)


@router.delete("/{policy_id}", status_code=204)
def delete_policy(policy_id: str, work: WorkDep) -> Response:
    """Deletes a policy."""
    use.delete_policy(work.vault, policy_id)
    return Response(status_code=204)


def _save(policy_id: str | None, body: PolicyIn, work: WorkDep) -> PolicyOut:
    named = use.save_policy(
        work.vault,
        policy_id=policy_id,
        name=body.name,
        domains=tuple(body.domains),
        policy=SitePolicy.from_dict(body.policy),
        source=body.source,
        now=work.now,
        offers_second_factor=body.offers_second_factor,
    )
    return _shaped(named, work)


def _shaped(named: NamedPolicy, work: Work) -> PolicyOut:
    not_drawn, worth, found = None, None, None
    try:
        one = use.worth_of(named.policy, work.keeper.spaces, work.keeper.random)
    except NewKnotError as error:
        not_drawn = error.code
        found = conflicts(named.policy)
    else:
        worth = WorthOut(
            length=one.length,
            example=one.example,
            entropy_bits=one.entropy_bits,
            is_exact=one.is_exact,
        )
    return PolicyOut(
        policy_id=named.policy_id,
        name=named.name,
        domains=list(named.domains),
        policy=named.policy.to_dict(),
        source=named.source,
        changed_at=named.changed_at,
        offers_second_factor=named.offers_second_factor,
        conflict=None
        if found is None
        else ConflictOut(
            rules=list(found.rules),
            says=found.says,
            frees=found.frees,
            also_frees=list(found.also_frees),
            is_decided=found.is_decided,
        ),
        attribute_text=write_rules(named.policy),
        not_drawn=not_drawn,
        worth=worth,
        used_by=[
            UsedByOut(login_id=login_id, title=title, is_broken=broken)
            for login_id, title, broken in use.logins_under(work.vault, named)
        ],
        revision=revision_of(work.vault, named.policy_id),
    )
