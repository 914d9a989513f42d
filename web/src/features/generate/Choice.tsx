import { Select } from "antd";

type Props<T extends string | number> = {
  label: string;
  /** What the choice is called where the label alone does not say. */
  name: string;
  value: T;
  options: { value: T; label: string }[];
  /** What the choice adds to the worth; none is shown where it cannot add any. */
  bits?: number;
  onChange: (value: T) => void;
};

/** One choice of a bench, and the bits it adds. */
export function Choice<T extends string | number>(props: Props<T>) {
  const { label, name, value, options, bits, onChange } = props;
  return (
    <div className="line">
      <span>{label}</span>
      <span className="row choice-row">
        <Select
          size="small"
          aria-label={name}
          value={value}
          onChange={onChange}
          options={options}
          style={{ width: bits === undefined ? 168 : 128 }}
        />
        {bits !== undefined && (
          <span className="small quiet choice-small">+{bits ? bits.toFixed(1) : 0}</span>
        )}
      </span>
    </div>
  );
}
