import type { MouseEvent } from 'react';
import { useLocation, useNavigate } from 'react-router';

/** As much of an address as says which page, and of which cloth. */
export interface At {
  pathname: string;
  search: string;
}

/**
 * Where the page is, or is going to while the part of the program for it is still on the way. A component is told of it
 * only when it is drawn anew, which may be after the next touch; this is true at once.
 */
export const going: { to: At | undefined } = { to: undefined };

/**
 * A link that changes one thing of the address and keeps the rest: another cloth on this page, another page of this
 * cloth. ``to`` makes its address from the one that is shown; touched before an earlier touch is drawn, it is made from
 * where that one leads.
 */
export function useKept() {
  const here = useLocation();
  const go = useNavigate();
  return (to: (from: At) => At) => ({
    to: to(here),
    onClick: (event: MouseEvent) => {
      const from = going.to;
      if (!from || (from.pathname === here.pathname && from.search === here.search)) return;
      if (event.button !== 0 || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return;
      event.preventDefault();
      void go(to(from));
    },
  });
}
