/** How a policy was learnt, in words. */
export const SOURCES: Record<string, string> = {
  typed: "typed",
  form: "read from its form",
  refusal: "learned from a refusal",
  file: "from a file",
};
