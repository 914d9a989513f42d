import "./app/styleNonce";
import "@fontsource-variable/atkinson-hyperlegible-next/index.css";
import "@fontsource-variable/atkinson-hyperlegible-mono/index.css";
// The cascade, in one place: tokens, layout, frame, then one sheet a feature.
import "./app/tokens.css";
import "./app/layout.css";
import "./app/frame.css";
import "./shared/shared.css";
import "./features/addresses/addresses.css";
import "./features/carry/carry.css";
import "./features/generate/generate.css";
import "./features/history/history.css";
import "./features/logins/logins.css";
import "./features/policies/policies.css";
import "./features/rotation/rotation.css";
import "./features/safeguards/safeguards.css";
import "./features/vault/vault.css";
import "./features/worklist/worklist.css";
import "./app/one-thing.css";
import { createRoot } from "react-dom/client";
import { App } from "./app/App";

const root = document.getElementById("root");
if (root) createRoot(root).render(<App />);
