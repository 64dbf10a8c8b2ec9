import { useState } from 'react';
import { page } from '../../../api/news';
import { blank, type Form, revived } from './form';

/** What has been typed of a piece survives a reload: it is kept here until the piece is. */
export function usePieceForm(key: string, start: () => Form) {
  const [form, setForm] = useState<Form>(() => revived(localStorage.getItem(key), start()));
  // something of before a reload, or of a drawer that was left
  const [found, setFound] = useState(() => localStorage.getItem(key) !== null);
  // what the page showed when this was begun
  const [since, setSince] = useState(() => Number(localStorage.getItem(`since:${key}`)) || page.shown);
  function change(next: (old: Form) => Form) {
    setForm((old) => {
      const made = next(old);
      if (made !== old) {
        if (localStorage.getItem(key) === null) localStorage.setItem(`since:${key}`, String(since));
        localStorage.setItem(key, JSON.stringify(made));
      }
      return made;
    });
  }
  return {
    form,
    /** whether something was typed that is not kept yet */
    begun: localStorage.getItem(key) !== null,
    /** whether that was typed earlier, and found again */
    found,
    since,
    /** on what is shown by now */
    renew: () => setSince(page.shown),
    change,
    clear(next?: Form) {
      localStorage.removeItem(key);
      localStorage.removeItem(`since:${key}`);
      setForm(next ?? blank());
      setFound(false);
      setSince(page.shown);
    },
  };
}
