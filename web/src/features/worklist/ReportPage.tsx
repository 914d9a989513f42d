import { useQuery } from "@tanstack/react-query";
import { Button, Checkbox, Radio } from "antd";
import { useState } from "react";
import { Link } from "react-router";
import { reportContent, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { count } from "../../domain/moments";
import { ProblemNote } from "../../shared/ProblemNote";
import { saveAs } from "../../shared/saveAs";
import { useAct } from "../../shared/useAct";

const GROUPS: Record<Schema["GroupedBy"], string> = {
  owner: "who is in charge",
  folder: "folder",
  kind: "kind of finding",
};

const SHOWN_MOST = 300;

/** What to do, for telling others: looked at here, taken out as a page or a table. */
export default function ReportPage() {
  const [groupedBy, setGroupedBy] = useState<Schema["GroupedBy"]>("owner");
  const [withUserNames, setWithUserNames] = useState(false);
  const { problem, busy, run } = useAct();
  const wish: Schema["ReportIn"] = { grouped_by: groupedBy, with_user_names: withUserNames };
  const { data, error } = useQuery(queries.report(wish));
  const lines = data?.lines ?? [];
  const shown = lines.slice(0, SHOWN_MOST);
  const groups = [...new Set(shown.map((line) => line.group))];
  const take = (kind: "csv" | "html") =>
    run(async () => saveAs(await reportContent(kind, wish), `what-to-do.${kind}`));

  return (
    <main className="page at-most-1180">
      <p className="small">
        <Link to="/">Worklist</Link>
      </p>
      <header className="row spread below-14">
        <div>
          <h1>Report</h1>
          <p className="small quiet">
            {count(lines.length, "finding")} for those in charge; no secret is in it, and what was
            accepted is left out.
            {lines.length > SHOWN_MOST && ` The first ${SHOWN_MOST} are shown; the files hold all.`}
          </p>
        </div>
        <div className="row">
          <Button loading={busy} disabled={!lines.length} onClick={() => void take("csv")}>
            Save as a table (CSV)
          </Button>
          <Button
            type="primary"
            loading={busy}
            disabled={!lines.length}
            onClick={() => void take("html")}
          >
            Save as a page to print
          </Button>
        </div>
      </header>
      <ProblemNote problem={problem ?? error} />
      <div className="row report-page-row">
        <Radio.Group
          aria-label="Together by"
          value={groupedBy}
          onChange={(event) => setGroupedBy(event.target.value as Schema["GroupedBy"])}
          options={(Object.keys(GROUPS) as Schema["GroupedBy"][]).map((value) => ({
            value,
            label: `by ${GROUPS[value]}`,
          }))}
        />
        <Checkbox
          checked={withUserNames}
          onChange={(event) => setWithUserNames(event.target.checked)}
        >
          with user names
        </Checkbox>
      </div>
      {data && !lines.length && (
        <div className="empty">
          <h2>Nothing to report</h2>
          <p>
            A report lists what the last check found, by site, owner or kind, without secrets. Run a
            check from <Link to="/">the worklist</Link> first; without a finding there is nothing to
            pass on.
          </p>
        </div>
      )}
      {groups.map((group) => (
        <section key={group} className="above-18">
          <h2>{group}</h2>
          <table className="plain dense in-lines">
            <thead>
              <tr>
                <th className="wide-220">Login</th>
                <th className="wide-130">Finding</th>
                <th>Evidence</th>
                <th className="wide-280">What to do</th>
              </tr>
            </thead>
            <tbody>
              {shown
                .filter((line) => line.group === group)
                .map((line, i) => (
                  <tr key={i}>
                    <td>
                      {line.title}
                      {line.user_name && <div className="small quiet">{line.user_name}</div>}
                    </td>
                    <td>{line.kind}</td>
                    <td>{line.evidence}</td>
                    <td>{line.to_do}</td>
                  </tr>
                ))}
            </tbody>
          </table>
        </section>
      ))}
    </main>
  );
}
