/** A text in which powers of ten (10^9.5) are set as such. */
export function Powers({ text }: { text: string }) {
  const parts = text.split(/10\^([\d.]*\d)/);
  return (
    <>
      {parts.map((part, i) =>
        i % 2 ? (
          <span key={i}>
            10<sup>{part}</sup>
          </span>
        ) : (
          part
        ),
      )}
    </>
  );
}
