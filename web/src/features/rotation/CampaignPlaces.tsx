import { Link } from "react-router";
import type { Schema } from "../../api/client";
import { sentence } from "../../domain/problems";
import { MoreButton, useSome } from "../../shared/Some";
import { isNearEnd } from "../../shared/nearEnd";

const STANDING: Record<Schema["Standing"], string> = {
  done: "done",
  under_way: "under way",
  waiting: "",
};
const ALL_IN_ORDER = 60;

/** The logins of a campaign in the order of work; of many, those that are done come last. */
export function CampaignPlaces({ places }: { places: Schema["PlaceOut"][] }) {
  const numbered = places.map((place, at) => ({ place, number: at + 1 }));
  const isDone = ({ place }: (typeof numbered)[number]) => place.standing === "done";
  const ordered =
    places.length > ALL_IN_ORDER
      ? [...numbered.filter((one) => !isDone(one)), ...numbered.filter(isDone)]
      : numbered;
  const some = useSome(ordered);
  return (
    <div
      className="small campaign-places"
      role="group"
      tabIndex={0}
      aria-label="Its logins in the order of work"
      onScroll={({ currentTarget: box }) => isNearEnd(box) && some.left > 0 && some.more()}
    >
      <ol>
        {some.shown.map(({ place, number }) => (
          <li key={place.login_id} value={number}>
            <Link to={`/logins/${place.login_id}`}>{place.title}</Link>{" "}
            <span className="quiet">{place.user_name}</span> <b>{STANDING[place.standing]}</b>
            {place.problem && (
              <span className="problem">
                {" "}
                not begun: {sentence({ code: place.problem, data: place.problem_data })}
              </span>
            )}
          </li>
        ))}
      </ol>
      <MoreButton some={some} />
    </div>
  );
}
