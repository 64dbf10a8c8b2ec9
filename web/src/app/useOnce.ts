import { useRef, useState } from 'react';

/** A command that is not begun a second time while it is under way, however often it is touched. */
export function useOnce<A extends unknown[]>(
  command: (...given: A) => Promise<unknown>,
): [boolean, (...given: A) => Promise<void>] {
  const under = useRef(false);
  const [busy, setBusy] = useState(false);
  return [
    busy,
    async (...given) => {
      if (under.current) return;
      under.current = true;
      setBusy(true);
      try {
        await command(...given);
      } finally {
        under.current = false;
        setBusy(false);
      }
    },
  ];
}
