import { useState } from "react";
import { Link } from "react-router";
import type { Schema } from "../../api/client";
import { sentence } from "../../domain/problems";
import { isNearEnd } from "../../shared/nearEnd";

const STANDING: Record<Schema["Standing"], string> = {
  done: "done",
  under_way: "under way",
  waiting: "",
};
/** As many as are in view and more; the next come as they are scrolled to. */
const FIRST = 60;
const STEP = 240;

/** The logins of a campaign in the order of work; of many, those that are done come last. */
export function CampaignPlaces({ places }: { places: Schema["PlaceOut"][] }) {
  const [most, setMost] = useState(FIRST);
  const more = () => setMost(Math.min(most, places.length) + STEP);
  const numbered = places.map((place, at) => ({ place, number: at + 1 }));
  const isDone = ({ place }: (typeof numbered)[number]) => place.standing === "done";
  const ordered =
    places.length > FIRST
      ? [...numbered.filter((one) => !isDone(one)), ...numbered.filter(isDone)]
      : numbered;
  return (
    <div
      className="small campaign-places"
      role="group"
      tabIndex={0}
      aria-label="Its logins in the order of work"
      onScroll={({ currentTarget: box }) => isNearEnd(box) && more()}
    >
      <ol>
        {ordered.slice(0, most).map(({ place, number }) => (
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
      {most < places.length && (
        <button type="button" className="link" onClick={more}>
          {(places.length - most).toLocaleString("en")} more
        </button>
      )}
    </div>
  );
}
