/** Who this page is among the open ones: every tab keeps its unsent edits under a name of its own. */
const PLACE = "sgorbia-tab";
const lockName = (tab: string) => `sgorbia-tab-${tab}`;
/** A page that is loaded again may find its own name still held for a moment by the page before, ms. */
const PATIENCE = 400;

let mine: Promise<string> | null = null;

/** The name of this tab. It stays the same when the page is loaded again; a tab that was copied gets a new one. */
export const tabName = (): Promise<string> => (mine ??= takeName());

async function takeName(): Promise<string> {
  const kept = read();
  if (kept !== null && (await hold(kept))) return kept;
  const fresh = crypto.randomUUID();
  await hold(fresh);
  write(fresh);
  return fresh;
}

/** Names of the tabs that are open now; null where the browser cannot tell. */
export async function openTabs(): Promise<Set<string> | null> {
  if (typeof navigator === "undefined" || !navigator.locks) return null;
  const { held } = await navigator.locks.query();
  const prefix = lockName("");
  return new Set((held ?? []).flatMap((l) => (l.name?.startsWith(prefix) ? [l.name.slice(prefix.length)] : [])));
}

/** Holds a name for as long as this page lives; false when another page has it. */
function hold(tab: string): Promise<boolean> {
  if (typeof navigator === "undefined" || !navigator.locks) return Promise.resolve(true);
  return new Promise((resolve) => {
    const forEver = () => {
      resolve(true);
      return new Promise<never>(() => {});
    };
    navigator.locks
      .request(lockName(tab), { signal: AbortSignal.timeout(PATIENCE) }, forEver)
      .catch(() => resolve(false));
  });
}

// A browser that keeps nothing (a private window) must not stop the work.
function read(): string | null {
  try {
    return sessionStorage.getItem(PLACE);
  } catch {
    return null;
  }
}
function write(tab: string): void {
  try {
    sessionStorage.setItem(PLACE, tab);
  } catch {
    // The name lasts as long as this page.
  }
}
