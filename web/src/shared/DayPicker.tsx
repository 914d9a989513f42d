import { DatePicker } from "antd";
import dayjs from "dayjs";

const ISO = "YYYY-MM-DD";

type Props = {
  label: string;
  /** YYYY-MM-DD, or empty. */
  value: string;
  onChange: (day: string) => void;
};

/** A day, written as the rest of the product writes days; typed so, as 2027-05-01, or picked. */
export default function DayPicker({ label, value, onChange }: Props) {
  return (
    <DatePicker
      aria-label={label}
      value={value ? dayjs(value) : null}
      format={["D MMM YYYY", "D MMMM YYYY", ISO, "D.M.YYYY", "D/M/YYYY"]}
      placeholder="1 May 2027"
      autoComplete="off"
      onChange={(day) => onChange(day ? day.format(ISO) : "")}
    />
  );
}
