const FOCUSABLE =
  "a[href], button:not([disabled]), input:not([disabled]), select:not([disabled]), textarea:not([disabled]), [tabindex]:not([tabindex='-1'])";
const MOST_REMEMBERED = 20;

const shown = (one: HTMLElement) => one.isConnected && one.getClientRects().length > 0;
const within = (home: Element) => [...home.querySelectorAll<HTMLElement>(FOCUSABLE)].filter(shown);

/** The hand on the page itself. */
export function onPage() {
  const main = document.querySelector<HTMLElement>('main');
  if (main && !main.hasAttribute('tabindex')) main.tabIndex = -1;
  main?.focus({ preventScroll: true });
}

/**
 * Where something was taken away under the hand — a line removed, a drawer closed, a command done — the hand goes to
 * what took its place: the nearest thing in the same part of the page, or what it was on before.
 */
export function keepHand() {
  let last: { at: HTMLElement; homes: { home: Element; place: number }[] } | undefined;
  let before: HTMLElement[] = [];

  document.addEventListener('focusin', (event) => {
    const at = event.target as HTMLElement;
    const homes: { home: Element; place: number }[] = [];
    for (let home = at.parentElement; home && home !== document.body && home.id !== 'root'; home = home.parentElement)
      homes.push({ home, place: within(home).indexOf(at) });
    last = { at, homes };
    before = [at, ...before.filter((one) => one !== at)].slice(0, MOST_REMEMBERED);
  });

  new MutationObserver(() => {
    if (!last || last.at.isConnected || document.activeElement !== document.body) return;
    // the page itself gave way to another one: the hand stays on the page
    if (last.at.matches('main')) {
      last = undefined;
      onPage();
      return;
    }
    const there = last.homes.find(
      ({ home }) => home.isConnected && !home.matches('.frame, .ant-app') && within(home).length > 0,
    );
    const near = there && within(there.home);
    const to = near ? near[Math.max(0, Math.min(there.place, near.length - 1))] : before.find(shown);
    last = undefined;
    if (to) to.focus({ preventScroll: true });
    else onPage();
  }).observe(document.body, { childList: true, subtree: true });
}
