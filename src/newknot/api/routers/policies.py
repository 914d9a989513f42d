"""The library of site policies."""

from fastapi import APIRouter, Response

from newknot.api.deps import WorkDep
from newknot.api.schemas.policies import ConflictOut, PolicyIn, PolicyList, PolicyOut
from newknot.core.generate.password_space import RuleNotCounted, require_counted
from newknot.core.policy import LOOK_ALIKES, NamedPolicy, SitePolicy
from newknot.usecases import policies as use

router = APIRouter(prefix="/policies", tags=["policies"])


@router.get("")
def list_policies(work: WorkDep) -> PolicyList:
    """The library by name."""
    return PolicyList(
        policies=[_shaped(named) for named in use.list_policies(work.vault)],
        default=use.default_policy().to_dict(),
        look_alikes=LOOK_ALIKES,
    )


@router.post("", status_code=201)
def add_policy(body: PolicyIn, work: WorkDep) -> PolicyOut:
    """A new policy, typed."""
    return _save(None, body, work)


@router.put("/{policy_id}")
def change_policy(policy_id: str, body: PolicyIn, work: WorkDep) -> PolicyOut:
    """A policy as changed."""
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
        source="typed",
        now=work.now,
    )
    return _shaped(named)


def _shaped(named: NamedPolicy) -> PolicyOut:
    found = named.policy.conflicts()
    not_counted = None
    try:
        require_counted(named.policy)
    except RuleNotCounted as error:
        not_counted = str(error.data["field"])
    return PolicyOut(
        policy_id=named.policy_id,
        name=named.name,
        domains=list(named.domains),
        policy=named.policy.to_dict(),
        source=named.source,
        changed_at=named.changed_at,
        conflict=None if found is None else ConflictOut(rules=list(found.rules), says=found.says),
        not_counted=not_counted,
    )
