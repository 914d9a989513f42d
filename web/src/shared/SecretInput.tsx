import { forwardRef, useId, useState, type InputHTMLAttributes } from "react";

type Props = Omit<InputHTMLAttributes<HTMLInputElement>, "value" | "defaultValue" | "type"> & {
  label: string;
  /** Whether the person may look at what they type. */
  canShow?: boolean;
  onShownChange?: (shown: boolean) => void;
};

/** A field for a secret. Uncontrolled on purpose: React would mirror a controlled value into the
 * DOM attribute. Read it through the ref. To a browser it is a code for once: of a password it would
 * offer to save it, and write the user name beside it to its own disk. */
export const SecretInput = forwardRef<HTMLInputElement, Props>(function SecretInput(
  { label, canShow = true, onShownChange, ...rest },
  ref,
) {
  const id = useId();
  const [shown, setShown] = useState(false);
  return (
    <div className="field">
      <div className="row spread">
        <label htmlFor={id}>{label}</label>
        {canShow && (
          <button
            type="button"
            className="link small"
            aria-label={`${shown ? "hide" : "show"} what is typed`}
            onClick={() => {
              setShown(!shown);
              onShownChange?.(!shown);
            }}
          >
            {shown ? "hide" : "show"}
          </button>
        )}
      </div>
      <input
        ref={ref}
        id={id}
        className="secret-input"
        type={shown ? "text" : "password"}
        autoComplete="one-time-code"
        autoCapitalize="off"
        autoCorrect="off"
        spellCheck={false}
        {...rest}
      />
    </div>
  );
});
