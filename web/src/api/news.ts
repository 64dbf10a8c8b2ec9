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

/** What a change that is sent now is built on. */
export const builtOn = () => seen ?? page.shown;
