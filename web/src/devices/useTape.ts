import { useEffect, useRef, useState } from 'react';
import { api, readWith, unwrap } from '../api/client';
import { onRing, rung } from '../api/news';

/** ms without a field in focus after which what the tape sends was meant for something else */
const FORGET = 3000;
const fields = () =>
  [...document.querySelectorAll<HTMLInputElement>('input[data-tape]')].filter((f) => f.offsetParent !== null);
const isField = (e: unknown): e is HTMLInputElement => e instanceof HTMLInputElement && e.matches('[data-tape]');

const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));

/** Types a reading into a field as a person would, keeps it with Enter, and goes on to the next field; ends when the focus has moved. */
async function put(field: HTMLInputElement, text: string): Promise<void> {
  const value = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!;
  value.set!.call(field, text);
  field.dispatchEvent(new Event('input', { bubbles: true }));
  await pause(30);
  readWith.device = true;
  try {
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
    await pause(350);
  } finally {
    readWith.device = false;
  }
  if (document.activeElement !== field || field.getAttribute('aria-invalid') === 'true') return;
  const all = fields();
  all[all.indexOf(field) + 1]?.focus();
}

/** Listens to the digital tape while a measurement field is in focus; true once the next reading will be taken. */
export function useTapeDevice(): boolean {
  const [listening, setListening] = useState(false);
  const [ready, setReady] = useState(false);
  const memory = useRef({ last: undefined as number | undefined, waiting: [] as string[], left: 0 });
  useEffect(() => {
    const look = () => setListening(isField(document.activeElement));
    const later = () => setTimeout(look);
    document.addEventListener('focusin', look);
    document.addEventListener('focusout', later);
    return () => {
      document.removeEventListener('focusin', look);
      document.removeEventListener('focusout', later);
    };
  }, []);
  useEffect(() => {
    if (!listening) return undefined;
    const tape = memory.current;
    // the focus may be nowhere for a moment while a form is drawn anew
    if (Date.now() - tape.left > FORGET) Object.assign(tape, { last: undefined, waiting: [] });
    let live = true;
    let busy = false;
    const take = async () => {
      if (busy || !live || document.hidden) return;
      // what came before the field had the focus was meant for something else; the newest of it was told with the news
      if (tape.last === undefined && rung.tape > 0) tape.last = rung.tape;
      if (tape.last !== undefined && tape.last === rung.tape && tape.waiting.length === 0) {
        setReady(true);
        return;
      }
      busy = true;
      try {
        if (tape.last === undefined || tape.last !== rung.tape) {
          const told = await unwrap(api.GET('/api/tape/readings', { params: { query: { after: tape.last ?? 0 } } }));
          // readings from before the field had the focus were meant for something else
          if (tape.last !== undefined) tape.waiting.push(...told.readings.map((r) => r.length.text));
          tape.last = told.last;
          rung.tape = Math.max(rung.tape, told.last);
        }
        setReady(true);
        while (live && tape.waiting.length > 0 && isField(document.activeElement)) {
          // until it is kept and the focus has moved, the next reading must wait: it is for the next field
          await put(document.activeElement, tape.waiting.shift()!);
        }
      } catch {
        // the server is away; what is typed by hand still is kept
      } finally {
        busy = false;
      }
      // one that came in meanwhile
      if (live && tape.last !== undefined && tape.last !== rung.tape) void take();
    };
    void take();
    const quiet = onRing(() => void take());
    return () => {
      live = false;
      quiet();
      tape.left = Date.now();
      setReady(false);
    };
  }, [listening]);
  return ready;
}
