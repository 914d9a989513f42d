import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { count } from "../../domain/moments";

const NAMED = 3;

/** Where a rotation stands in its campaign, and which logins are next. */
export function CampaignPlace({ rotation }: { rotation: Schema["RotationOut"] }) {
  const campaigns = useQuery(queries.campaigns()).data ?? [];
  const campaign = campaigns.find((c) => c.places.some((p) => p.login_id === rotation.login_id));
  if (!campaign) return null;
  const { places } = campaign;
  const left = places.filter((p) => p.standing !== "done" && p.login_id !== rotation.login_id);
  const named = left.slice(0, NAMED).map((p) => p.title);
  const at = places.findIndex((p) => p.login_id === rotation.login_id) + 1;
  return (
    <section aria-label="Its campaign">
      <h2>Its campaign</h2>
      <p className="small">
        {at} of {places.length}, {count(places.length - left.length - 1, "other")} done.{" "}
        {named.length > 0 && `Next: ${named.join(", ")}`}
        {left.length > NAMED && ` and ${left.length - NAMED} more`}
        {named.length > 0 && ". "}
        <Link to="/rotate">the campaign</Link>
      </p>
    </section>
  );
}
