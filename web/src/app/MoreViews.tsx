import { Dropdown } from "antd";
import { useNavigate } from "react-router";
import { FURTHER, VIEWS } from "./commands";

/** Views that stand in the bar whatever its width. */
export const ALWAYS_SHOWN = 3;

/** All views under one button, where a narrow bar has no room for them. */
export function MoreViews() {
  const navigate = useNavigate();
  const items = [...VIEWS, ...FURTHER].map((view) => ({
    key: view.path,
    label: (
      <span className="row spread gap-18">
        {view.label} <kbd>{view.key.toUpperCase()}</kbd>
      </span>
    ),
  }));
  return (
    <Dropdown
      trigger={["click"]}
      // Within the bar, so that it belongs to a landmark.
      getPopupContainer={(button) => button.parentElement ?? document.body}
      menu={{ items, onClick: ({ key }) => void navigate(key) }}
      classNames={{ root: "more-menu" }}
    >
      <button type="button" className="plain-button more-views" aria-haspopup="menu">
        More <span aria-hidden="true">▾</span>
      </button>
    </Dropdown>
  );
}
