import { useState } from "react";
import { blank, type Form, revived } from "./form";

/** What has been typed of a piece survives a reload: it is kept here until the piece is. */
export function usePieceForm(key: string, start: () => Form) {
  const [form, setForm] = useState<Form>(() => revived(localStorage.getItem(key), start()));
  function change(next: (old: Form) => Form) {
    setForm((old) => {
      const made = next(old);
      if (made !== old) localStorage.setItem(key, JSON.stringify(made));
      return made;
    });
  }
  return {
    form,
    /** whether something was typed that is not kept yet */
    begun: localStorage.getItem(key) !== null,
    change,
    clear(next?: Form) {
      localStorage.removeItem(key);
      setForm(next ?? blank());
    },
  };
}
