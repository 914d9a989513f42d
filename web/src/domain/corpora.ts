import type { Schema } from "../api/client";

/** The corpora that can be asked. */
export const usable = (held: Pick<Schema["SafeguardsOut"], "corpora">) =>
  held.corpora.filter((one) => !one.reason);
