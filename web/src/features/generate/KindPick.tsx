import { Radio } from "antd";
import { memo } from "react";
import { KINDS, type WishKind } from "../../domain/wish";

type Props = { kind: WishKind; onKind: (kind: WishKind) => void };

export const KindPick = memo(function KindPick({ kind, onKind }: Props) {
  return (
    <Radio.Group
      className="kinds"
      size="small"
      optionType="button"
      aria-label="What the secret is made of"
      value={kind}
      onChange={(event) => onKind(event.target.value as WishKind)}
      options={KINDS}
    />
  );
});
