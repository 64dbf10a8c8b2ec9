/** Which page this is, and the newest change of other pages, or of work that was begun, that it shows. */
export const page = { window: crypto.randomUUID(), shown: 0 };

/** Work under way changes something several times a second; the page follows no more often than this, ms. */
const FOLLOW_EVERY = 1_000;

let heard = 0;
let following = false;
let begun = false;
let refetch: () => Promise<unknown> = () => Promise.resolve();

/** How everything on the page is asked for again. */
export function onNews(again: () => Promise<unknown>) {
  refetch = again;
}

/** Every answer says up to which change of others it was made. What is newer than what is shown is fetched at once. */
export function noticed(newest: number) {
  if (!begun) {
    begun = true;
    page.shown = heard = newest;
  }
  if (newest <= heard) return;
  heard = newest;
  if (!following) void follow();
}

async function follow() {
  following = true;
  while (page.shown < heard) {
    await upToDate();
    await new Promise((resolve) => setTimeout(resolve, FOLLOW_EVERY));
  }
  following = false;
}

/** Once everything heard of is on the page. */
export async function upToDate() {
  const until = heard;
  await refetch();
  page.shown = Math.max(page.shown, until);
}

let seen: number | undefined;

/** A change built on what was shown when the person began to type. */
export function asShown<T>(since: number | undefined, change: () => T): T {
  seen = since;
  try {
    return change();
  } finally {
    seen = undefined;
  }
}

/** Where the server has said that something was written: by any page, or by work under way; and the newest reading of the tape. */
export const rung = { at: 0, tape: 0 };
const listeners = new Set<() => void>();

/** Called each time something was written, wherever. */
export function onRing(listener: () => void) {
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
  };
}

const seenAgain = () =>
  new Promise<void>((resolve) => {
    const look = () => {
      if (document.hidden) return;
      document.removeEventListener('visibilitychange', look);
      resolve();
    };
    document.addEventListener('visibilitychange', look);
  });

/** An answer without news that comes sooner than this was not waited for, ms. */
const SOON = 1_000;

/** After a server that was out of reach, ms. */
const TRY_AGAIN = 2_000;

/** Waits at the server for news for as long as the page is looked at; a hidden page asks when it is shown again. */
export async function listen(ask: (since: number) => Promise<{ rung: number; tape: number }>) {
  for (;;) {
    if (document.hidden) await seenAgain();
    try {
      const asked = Date.now();
      const told = await ask(rung.at);
      const before = rung.at;
      Object.assign(rung, { at: told.rung, tape: told.tape });
      if (before !== told.rung) for (const listener of listeners) listener();
      // sent away at once: too many pages wait, or the server is ending
      else if (Date.now() - asked < SOON) await new Promise((resolve) => setTimeout(resolve, SOON));
    } catch {
      // what is typed meanwhile says itself that it could not be kept
      await new Promise((resolve) => setTimeout(resolve, TRY_AGAIN));
    }
  }
}

/** What a change that is sent now is built on. */
export const builtOn = () => seen ?? page.shown;
