import { useQuery } from "@tanstack/react-query";
import { Suspense, useCallback, useEffect, useRef, useState } from "react";
import { NavLink, Route, Routes, useLocation, useNavigate } from "react-router";
import { client, lockVault } from "../api/client";
import { queries } from "../api/queries";
import { minutesAndSeconds } from "../domain/moments";
import { codeOf } from "../domain/problems";
import { WorklistPage } from "../features/worklist/WorklistPage";
import { ClipboardNote, ClipboardProvider } from "../shared/clipboard";
import { KnotMark } from "../shared/icons";
import { holdKeysWhileOpening, viewArrived, viewsLeft } from "../shared/typedAhead";
import { keepFocus } from "../shared/keepFocus";
import { focusViewOnceThere } from "../shared/viewFocus";
import { useKeys } from "../shared/useKeys";
import { FURTHER, VIEWS } from "./commands";
import { ClearFiles } from "./ClearFiles";
import { CommandBox } from "./CommandBox";
import { ALWAYS_SHOWN, MoreViews } from "./MoreViews";
import { KeySheet } from "./KeySheet";
import { lazyView } from "./lazyView";
import { ViewBoundary } from "./ViewBoundary";
import { ServerAway } from "./ServerAway";
import { useTitle } from "./titles";
import { UnsavedGuard } from "./UnsavedGuard";
import { SessionWarnings } from "./SessionWarnings";
import { useNow } from "../shared/useNow";

const LoginsPage = lazyView(() => import("../features/logins/LoginsPage"));
const LoginPage = lazyView(() => import("../features/logins/LoginPage"));
const LoginFormPage = lazyView(() => import("../features/logins/LoginFormPage"));
const AddressPage = lazyView(() => import("../features/addresses/AddressPage"));
const BinPage = lazyView(() => import("../features/logins/BinPage"));
const GeneratePage = lazyView(() => import("../features/generate/GeneratePage"));
const RotatePage = lazyView(() => import("../features/rotation/RotatePage"));
const HandOverPage = lazyView(() => import("../features/rotation/HandOverPage"));
const PoliciesPage = lazyView(() => import("../features/policies/PoliciesPage"));
const CarryPage = lazyView(() => import("../features/carry/CarryPage"));
const SafeguardsPage = lazyView(() => import("../features/safeguards/SafeguardsPage"));
const ReachPage = lazyView(() => import("../features/worklist/ReachPage"));
const EventsPage = lazyView(() => import("../features/history/EventsPage"));
const ReportPage = lazyView(() => import("../features/worklist/ReportPage"));
const WaiversPage = lazyView(() => import("../features/worklist/WaiversPage"));
const MeasurePage = lazyView(() => import("../features/strength/MeasurePage"));
const PassphrasePage = lazyView(() => import("../features/vault/PassphrasePage"));

const TOUCH_EVERY_MS = 10_000;

type Props = { onLocking: () => void; onLocked: () => void };

export function Frame({ onLocking, onLocked }: Props) {
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const session = useQuery(queries.session());
  const isAway = codeOf(session.error) === "unreachable";
  const worklist = useQuery(queries.workRows(null, 0));
  const rotations = useQuery(queries.rotations());
  const [finding, setFinding] = useState(false);
  const [sheet, setSheet] = useState(false);
  useHumanActs();
  useEffect(() => {
    const release = holdKeysWhileOpening(document);
    const end = keepFocus();
    return () => {
      release();
      end();
      viewsLeft();
    };
  }, []);

  const lock = useCallback(async () => {
    onLocking();
    try {
      await lockVault();
    } finally {
      onLocked();
    }
  }, [onLocking, onLocked]);

  const goTo = Object.fromEntries(
    [...VIEWS, ...FURTHER].map((v) => [v.key, () => void navigate(v.path)]),
  );
  useKeys({
    ...goTo,
    l: () => void lock(),
    "/": () => setFinding(true),
    "?": () => setSheet(true),
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "k") {
        event.preventDefault();
        setFinding(true);
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);

  useTitle(pathname);

  const numbers: Record<string, number> = {
    "/": worklist.data?.logins ?? 0,
    "/rotate": rotations.data?.filter((r) => r.is_open).length ?? 0,
  };

  return (
    <ClipboardProvider clearAfterS={session.data?.clipboard_clear_s ?? 30}>
      <div className="frame">
        <header className="top">
          <span className="brand">
            <KnotMark /> <span className="brand-name">New Knot</span>
          </span>
          <nav aria-label="Views">
            {VIEWS.map((v, i) => (
              <NavLink
                key={v.path}
                to={v.path}
                end={v.path === "/"}
                title={`Key ${v.key}`}
                className={i < ALWAYS_SHOWN ? undefined : "folds"}
              >
                {v.label}
                {numbers[v.path] ? (
                  <span className="number">{numbers[v.path]?.toLocaleString("en")}</span>
                ) : null}
              </NavLink>
            ))}
          </nav>
          <MoreViews />
          <div className="end">
            <button type="button" className="find" onClick={() => setFinding(true)}>
              <span className="find-says">Find a login, or do…</span> <kbd>Ctrl K</kbd>
            </button>
            <Countdown
              secondsLeft={isAway ? undefined : session.data?.seconds_left}
              asOf={session.dataUpdatedAt}
              onLock={() => void lock()}
            />
            <NavLink
              to="/safeguards"
              className="plain-button folds"
              title="Settings and safeguards, key 7"
            >
              Settings
            </NavLink>
          </div>
        </header>
        <ServerAway isAway={isAway} />
        <UnsavedGuard />
        <SessionWarnings session={session.data} />
        <ClearFiles />
        <div className="view">
          <ViewBoundary at={pathname}>
            <Suspense fallback={<main className="page" aria-busy="true" />}>
              <Routes>
                <Route path="/" element={<WorklistPage />} />
                <Route path="/reach" element={<ReachPage />} />
                <Route path="/events" element={<EventsPage />} />
                <Route path="/report" element={<ReportPage />} />
                <Route path="/waivers" element={<WaiversPage />} />
                <Route path="/logins" element={<LoginsPage />} />
                <Route path="/logins/new" element={<LoginFormPage />} />
                <Route path="/logins/bin" element={<BinPage />} />
                <Route path="/logins/:loginId" element={<LoginPage />} />
                <Route path="/logins/:loginId/sign-in" element={<LoginPage />} />
                <Route path="/address" element={<AddressPage />} />
                <Route path="/logins/:loginId/edit" element={<LoginFormPage />} />
                <Route path="/generate" element={<GeneratePage />} />
                <Route path="/rotate" element={<RotatePage />} />
                <Route path="/rotate/:rotationId" element={<HandOverPage />} />
                <Route path="/policies" element={<PoliciesPage />} />
                <Route path="/carry" element={<CarryPage />} />
                <Route path="/safeguards" element={<SafeguardsPage />} />
                <Route path="/measure" element={<MeasurePage />} />
                <Route path="/passphrase" element={<PassphrasePage />} />
                <Route path="*" element={<main className="page">There is no such view.</main>} />
              </Routes>
              <Arrival />
            </Suspense>
          </ViewBoundary>
        </div>
        <ClipboardNote />
        {finding && <CommandBox onClose={() => setFinding(false)} onLock={() => void lock()} />}
        {sheet && <KeySheet onClose={() => setSheet(false)} />}
      </div>
    </ClipboardProvider>
  );
}

/** Beside the view in its boundary: it stands when the view does, which then has the focus. */
function Arrival() {
  const { pathname } = useLocation();
  useEffect(() => {
    viewArrived(pathname);
    return focusViewOnceThere();
  }, [pathname]);
  return null;
}

/** Only what a person does keeps the vault open; what the page does by itself does not. */
function useHumanActs(): void {
  const last = useRef(0);
  useEffect(() => {
    const onAct = () => {
      const now = Date.now();
      if (now - last.current < TOUCH_EVERY_MS) return;
      last.current = now;
      void client.POST("/vault/touch").catch(() => {});
    };
    const kinds = ["pointerdown", "keydown", "wheel"] as const;
    for (const kind of kinds) window.addEventListener(kind, onAct, { passive: true });
    return () => {
      for (const kind of kinds) window.removeEventListener(kind, onAct);
    };
  }, []);
}

function Countdown({
  secondsLeft,
  asOf,
  onLock,
}: {
  secondsLeft: number | undefined;
  asOf: number;
  onLock: () => void;
}) {
  const now = useNow(1000);
  const left = secondsLeft === undefined ? null : secondsLeft - Math.max(0, now - asOf) / 1000;
  return (
    <button type="button" className="plain-button" onClick={onLock} title="Lock the vault now">
      {left === null ? (
        "lock"
      ) : (
        <span>
          <span className="locks-in">locks in </span>
          {minutesAndSeconds(left)}
        </span>
      )}{" "}
      <kbd>L</kbd>
    </button>
  );
}
