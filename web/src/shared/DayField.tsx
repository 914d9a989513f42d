import { lazy, Suspense } from "react";

const DayPicker = lazy(() => import("./DayPicker"));

/** A day to be typed or picked: what draws the calendar is loaded where one is asked for. */
export function DayField(props: { label: string; value: string; onChange: (day: string) => void }) {
  return (
    <div className="field">
      <span>{props.label}</span>
      <Suspense fallback={<span className="ant-input">{props.value}</span>}>
        <DayPicker {...props} />
      </Suspense>
    </div>
  );
}
