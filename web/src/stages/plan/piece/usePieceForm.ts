import { useState } from "react";
import { blank, type Form, revived } from "./form";

/** What has been typed of a piece survives a reload: it is kept here until the piece is. */
export function usePieceForm(key: string, start: () => Form) {
  const [form, setForm] = useState<Form>(() => revived(localStorage.getItem(key), start()));
  const [begun, setBegun] = useState(() => localStorage.getItem(key) !== null);
  function change(next: Form | ((old: Form) => Form)) {
    setForm((old) => {
      const made = typeof next === "function" ? next(old) : next;
      if (made !== old) localStorage.setItem(key, JSON.stringify(made));
      return made;
    });
    setBegun(true);
  }
  return {
    form,
    /** whether something was typed that is not kept yet */
    begun,
    change,
    clear(next?: Form) {
      localStorage.removeItem(key);
      setBegun(false);
      setForm(next ?? blank());
    },
  };
}
