/** Which page this is, and the newest change of other pages, or of work that was begun, that it shows. */
export const page = { window: crypto.randomUUID(), shown: 0 };

let heard = 0;
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
  void refetch().then(() => {
    page.shown = Math.max(page.shown, newest);
  });
}

/** Once everything heard of is on the page. */
export async function upToDate() {
  await refetch();
  page.shown = Math.max(page.shown, heard);
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
