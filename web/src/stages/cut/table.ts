import { useCallback, useEffect, useState } from 'react';

/** Keeps the screen on while one cuts, where the browser can. */
export function useAwake(on: boolean) {
  useEffect(() => {
    if (!on || !('wakeLock' in navigator)) return undefined;
    let lock: WakeLockSentinel | undefined;
    let ended = false;
    const ask = async () => {
      if (document.visibilityState !== 'visible') return;
      // refused where the battery is low: the screen then goes dark as ever
      lock = await navigator.wakeLock.request('screen').catch(() => undefined);
      if (ended) void lock?.release();
    };
    void ask();
    // it is let go of by itself when the page is not seen
    document.addEventListener('visibilitychange', ask);
    return () => {
      ended = true;
      document.removeEventListener('visibilitychange', ask);
      void lock?.release();
    };
  }, [on]);
}

const KEPT = 'read-aloud';

/** Reads aloud by the browser's own voice, if asked. */
export function useVoice() {
  const can = 'speechSynthesis' in window;
  const [on, setOn] = useState(() => can && localStorage.getItem(KEPT) === '1');
  const say = useCallback(
    (text: string) => {
      if (!can) return;
      speechSynthesis.cancel();
      const spoken = new SpeechSynthesisUtterance(text);
      spoken.lang = 'en';
      speechSynthesis.speak(spoken);
    },
    [can],
  );
  useEffect(() => () => (can ? speechSynthesis.cancel() : undefined), [can]);
  return {
    can,
    on,
    say,
    toggle: () => {
      localStorage.setItem(KEPT, on ? '0' : '1');
      if (on) speechSynthesis.cancel();
      setOn(!on);
    },
  };
}
