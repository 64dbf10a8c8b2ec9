import { useEffect, useState } from "react";
import { api, unwrap } from "../api/client";

const EVERY = 400;
const fields = () => [...document.querySelectorAll<HTMLInputElement>("input[data-tape]")].filter((f) => f.offsetParent !== null);
const isField = (e: unknown): e is HTMLInputElement => e instanceof HTMLInputElement && e.matches("[data-tape]");

/** Types a reading into a field as a person would, keeps it with Enter, and goes on to the next field. */
function put(field: HTMLInputElement, text: string) {
  const value = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")!;
  value.set!.call(field, text);
  field.dispatchEvent(new Event("input", { bubbles: true }));
  setTimeout(() => {
    field.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", bubbles: true, cancelable: true }));
    setTimeout(() => {
      if (document.activeElement !== field || field.getAttribute("aria-invalid") === "true") return;
      const all = fields();
      all[all.indexOf(field) + 1]?.focus();
    }, 350);
  }, 30);
}

/** Listens to the digital tape while a measurement field is in focus; true while it listens. */
export function useTapeDevice(): boolean {
  const [listening, setListening] = useState(false);
  useEffect(() => {
    const look = () => setListening(isField(document.activeElement));
    const later = () => setTimeout(look);
    document.addEventListener("focusin", look);
    document.addEventListener("focusout", later);
    return () => {
      document.removeEventListener("focusin", look);
      document.removeEventListener("focusout", later);
    };
  }, []);
  useEffect(() => {
    if (!listening) return undefined;
    let last: number | undefined;
    let live = true;
    let busy = false;
    const waiting: string[] = [];
    const timer = setInterval(async () => {
      if (busy || document.hidden) return;
      busy = true;
      try {
        const told = await unwrap(api.GET("/api/tape/readings", { params: { query: { after: last ?? 0 } } }));
        // readings from before the field had the focus were meant for something else
        if (last !== undefined) waiting.push(...told.readings.map((r) => r.length.text));
        last = told.last;
        const field = document.activeElement;
        const next = waiting[0];
        if (live && next !== undefined && isField(field)) {
          waiting.shift();
          put(field, next);
        }
      } catch {
        // the server is away; what is typed by hand still is kept
      } finally {
        busy = false;
      }
    }, EVERY);
    return () => {
      live = false;
      clearInterval(timer);
    };
  }, [listening]);
  return listening;
}
