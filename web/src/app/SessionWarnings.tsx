import { Button } from "antd";
import { answer, client, type Schema } from "../api/client";
import { day } from "../domain/moments";
import { LostParts } from "./LostParts";

const PLACE: Record<Schema["PlaceDoubt"], string> = {
  folder_of_another: "The vault's folder belongs to another user of this machine",
  folder_shared: "Other users of this machine may write to the vault's folder",
  file_of_another: "The vault file belongs to another user of this machine",
  file_shared: "Other users of this machine may write to the vault file",
};

/** An older copy put back, or damaged records: said before anything else. */
export function SessionWarnings({ session }: { session: Schema["SessionState"] | undefined }) {
  if (!session) return null;
  const accept = async () => {
    await answer(client.POST("/vault/older-copy-accepted"));
  };
  return (
    <>
      {session.is_older_copy && (
        <div className="warning row" role="alert">
          <span>
            <b>This vault file is older than the one last seen on this machine.</b> Somebody put a
            former copy back, or changes were lost. Nothing can be written until you answer.
          </span>
          <Button onClick={() => void accept()}>Go on with this copy</Button>
        </div>
      )}
      {session.place_doubts.length > 0 && (
        <div className="warning" role="status">
          <b>{session.place_doubts.map((one) => PLACE[one]).join(", and ")}.</b> They cannot read
          the vault, but they can delete it or put a former copy in its place: keep it in a folder
          of your own.
        </div>
      )}
      {session.clock_leap && (
        <div className="warning" role="status">
          <b>The clock of this machine leapt</b> from {day(session.clock_leap.before)} to{" "}
          {day(session.clock_leap.after)}, or was off for long. Until it has gone as it should for a
          day, nothing is deleted by its date: not the bin, not what is past its keeping time.
        </div>
      )}
      {session.mended.length > 0 && (
        <div className="warning" role="status">
          <b>One of the two copies of a key slot was damaged</b> ({session.mended.join(", ")}) and
          was written anew from the other. A disk that does so once may do so again: make a backup
          elsewhere.
        </div>
      )}
      <LostParts damaged={session.damaged} />
    </>
  );
}
