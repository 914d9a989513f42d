import { DatePicker } from "antd";
import british from "antd/es/date-picker/locale/en_GB";
import dayjs from "dayjs";
import "dayjs/locale/en-gb";

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
      locale={british}
      autoComplete="off"
      onKeyDown={(event) => {
        // Enter takes the day; the form is saved by the next one, elsewhere.
        if (event.key === "Enter") event.preventDefault();
      }}
      onChange={(day) => onChange(day ? day.format(ISO) : "")}
    />
  );
}
