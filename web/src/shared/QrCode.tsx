/** A QR code by its modules, dark on white in both themes: readers expect it so. */
export function QrCode({ rows, name, wide }: { rows: string[]; name: string; wide: number }) {
  const path = rows
    .flatMap((row, y) => [...row].map((bit, x) => (bit === "1" ? `M${x} ${y}h1v1h-1z` : "")))
    .join("");
  return (
    <svg
      role="img"
      aria-label={name}
      width={wide}
      height={wide}
      viewBox={`0 0 ${rows.length} ${rows.length}`}
      shapeRendering="crispEdges"
      className="qr-code"
    >
      <rect width={rows.length} height={rows.length} className="paper" />
      <path d={path} className="ink" />
    </svg>
  );
}
