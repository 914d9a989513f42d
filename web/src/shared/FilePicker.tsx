import type { RefObject } from "react";

type Props = {
  ref: RefObject<HTMLInputElement | null>;
  label: string;
  accept: string;
  onFile: (file: File) => void;
};

/** The system's own choice of a file, opened by a button beside it; the same file can come again. */
export function FilePicker({ ref, label, accept, onFile }: Props) {
  return (
    <input
      ref={ref}
      type="file"
      accept={accept}
      hidden
      aria-label={label}
      onChange={(event) => {
        const file = event.target.files?.[0];
        event.target.value = "";
        if (file) onFile(file);
      }}
    />
  );
}
