/** What the lines between the knots stand for. */
export function CordLegend() {
  return (
    <p className="small cord-legend">
      <span className="same">same secret</span> <span className="similar">similar</span>{" "}
      <span className="resets">can reset</span>
    </p>
  );
}
