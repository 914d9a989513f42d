import { useMutation, useQuery } from "@tanstack/react-query";
import { Button, Progress } from "antd";
import { useNavigate } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { day } from "../../domain/moments";
import { ProblemNote } from "../../shared/ProblemNote";
import { opening } from "../../shared/typedAhead";
import { CampaignPlaces } from "./CampaignPlaces";

/** Many rotations in one order: how far each campaign is, and the one to do next. */
export function Campaigns() {
  const { data } = useQuery(queries.campaigns());
  return (
    <>
      {(data ?? []).map((campaign) => (
        <CampaignPart key={campaign.campaign_id} campaign={campaign} />
      ))}
    </>
  );
}

function CampaignPart({ campaign }: { campaign: Schema["CampaignOut"] }) {
  const navigate = useNavigate();
  const params = { path: { campaign_id: campaign.campaign_id } };
  const total = campaign.places.length;
  const next = campaign.places.find((place) => place.standing !== "done");
  const driven = campaign.places.filter((place) => place.driven && place.standing !== "done");

  const goOn = useMutation({
    mutationFn: async (place: Schema["PlaceOut"]) =>
      place.rotation_id ??
      (await opening(answer(client.POST("/rotations", { body: { login_id: place.login_id } }))))
        .rotation_id,
    onSuccess: (rotation_id) => {
      void navigate(`/rotate/${rotation_id}`);
    },
  });
  const drive = useMutation({
    mutationFn: () => answer(client.POST("/campaigns/{campaign_id}/drive", { params })),
  });
  const end = useMutation({
    mutationFn: () => answer(client.DELETE("/campaigns/{campaign_id}", { params })),
  });

  return (
    <section className="below-28" aria-label={`Campaign of ${day(campaign.begun_at)}`}>
      <header className="row spread below-6">
        <h2>
          Campaign of {day(campaign.begun_at)}: {campaign.done_count} of {total}
        </h2>
        <div className="row campaigns-acts">
          {drive.isPending ? (
            <Button onClick={() => void client.POST("/campaigns/{campaign_id}/stop", { params })}>
              Stop
            </Button>
          ) : (
            driven.length > 0 && (
              <Button onClick={() => drive.mutate()}>
                Let New Knot do {driven.length.toLocaleString("en")} of them
              </Button>
            )
          )}
          {next ? (
            <Button
              type="primary"
              className="campaigns-next"
              disabled={drive.isPending}
              onClick={() => goOn.mutate(next)}
            >
              {next.rotation_id ? "Go on with" : "Next:"} {next.title}
            </Button>
          ) : null}
          <Button disabled={drive.isPending} onClick={() => end.mutate()}>
            {next ? "Let it go" : "Done with it"}
          </Button>
        </div>
      </header>
      <Progress
        percent={total ? Math.floor((campaign.done_count / total) * 100) : 100}
        showInfo={false}
        size="small"
        aria-label={`${campaign.done_count} of ${total} done`}
      />
      <ProblemNote problem={goOn.error ?? drive.error ?? end.error} />
      <CampaignPlaces places={campaign.places} />
    </section>
  );
}
