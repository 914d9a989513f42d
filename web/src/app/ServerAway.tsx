/** The server does not answer: said at once, and not only on the next act. */
export function ServerAway({ isAway }: { isAway: boolean }) {
  if (!isAway) return null;
  return (
    <div className="warning" role="alert">
      <b>New Knot's server does not answer.</b> Nothing can be saved or copied until it runs again;
      what is typed stays here as long as this page does.
    </div>
  );
}
