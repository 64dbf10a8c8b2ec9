/** What is pressed by a click; a piece that is dragged over the table is none of them, its answers are wanted at once. */
const PRESSED = 'a[href], button, label, input, select, summary, [role="tab"], [role="option"]';

/** A press that lasts longer is no click any more, ms. */
const LONGEST = 700;

let release: (() => void) | undefined;
let lifted: Promise<void> = Promise.resolve();

/**
 * Until the button under the pointer is let go. An answer may push what is pressed away from under the pointer (a
 * refusal is told above it, a list grows), and a click that goes down on one thing and up on another is lost.
 */
export const letGo = () => lifted;

/** Notices presses, from now on. */
export function watchPresses(page: Document) {
  page.addEventListener(
    'pointerdown',
    (event) => {
      release?.();
      if (!(event.target as Element).closest(PRESSED)) return;
      lifted = new Promise((resolve) => {
        const timer = setTimeout(done, LONGEST);
        function done() {
          clearTimeout(timer);
          release = undefined;
          resolve();
        }
        release = done;
      });
    },
    { capture: true },
  );
  // the click comes in the same turn as the release: what waited goes on in the turn after it
  for (const end of ['pointerup', 'pointercancel'] as const)
    page.addEventListener(end, () => void setTimeout(() => release?.(), 0), { capture: true });
}
