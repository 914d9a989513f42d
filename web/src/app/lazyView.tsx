import { lazy, type ComponentType } from "react";

type Load = () => Promise<{ default: ComponentType }>;

const renewals = new Set<() => void>();

/** A view whose script is loaded when it is first wanted, and asked for anew where that failed. */
export function lazyView(load: Load): ComponentType {
  let failed = false;
  const begin = () =>
    lazy(() =>
      load().catch((error: unknown) => {
        failed = true;
        throw error;
      }),
    );
  let current = begin();
  renewals.add(() => {
    if (failed) current = begin();
    failed = false;
  });
  return function View() {
    const Current = current;
    return <Current />;
  };
}

/** What could not be loaded is loaded again when it is next shown. */
export function loadAgain(): void {
  for (const renew of renewals) renew();
}
