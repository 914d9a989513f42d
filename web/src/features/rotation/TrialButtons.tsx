import { Button } from "antd";

type Props = {
  busy: boolean;
  onCopy: () => void;
  onAnswer: (opened: boolean) => void;
  onStop: () => void;
};

/** One sign-in of a series by hand: copied, and answered. */
export function TrialButtons({ busy, onCopy, onAnswer, onStop }: Props) {
  return (
    <div className="row above-6">
      <Button size="small" type="primary" onClick={onCopy}>
        Copy this
      </Button>
      <Button size="small" disabled={busy} onClick={() => onAnswer(true)}>
        It opens the site
      </Button>
      <Button size="small" disabled={busy} onClick={() => onAnswer(false)}>
        It does not
      </Button>
      <button type="button" className="link small" onClick={onStop}>
        stop here
      </button>
    </div>
  );
}
