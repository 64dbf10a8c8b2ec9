import { useQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { useState } from 'react';
import { api, saved, unwrap } from '../../api/client';
import { useAct } from '../../app/useAct';

type Copy = { name: string; day: string; why: string; size: number };

const dayOf = (day: string) =>
  new Date(`${day}T12:00`).toLocaleDateString(undefined, {
    weekday: 'short',
    day: 'numeric',
    month: 'long',
    year: 'numeric',
  });

/** The daily copies of everything, and going back to one; what is here then is kept as a copy first. */
export function Copies() {
  const { data, error } = useQuery({ queryKey: ['copies'], queryFn: () => unwrap(api.GET('/api/copies')) });
  const [asks, setAsks] = useState<Copy>();
  const back = async (copy: Copy) => {
    await saved(api.POST('/api/copies/back', { body: { name: copy.name } }));
    // nothing of what is shown holds any more; until the page is there again this goes on
    location.reload();
    await new Promise(() => undefined);
  };
  const { run, busy, error: refused } = useAct(back, { once: true });
  // another device is not asked to go back for the whole house
  if (error) return null;
  return (
    <section className="copies" aria-label="Copies">
      <details>
        <summary>
          <h2>Copies of each day</h2>
        </summary>
        <p className="quiet">
          One is made each day it is used, here on this machine: seven days, then one of each month. They do not help
          when the disk breaks: for that, take everything along as one file.
        </p>
        {data?.copies.length === 0 && <p>None yet: the first is made within some minutes.</p>}
        <ul className="copy-list">
          {data?.copies.map((one) => (
            <li key={one.name}>
              <span>
                {dayOf(one.day)}
                {one.why && `, ${one.why}`}
              </span>
              <span className="quiet">{(one.size / 1_000_000).toFixed(1)} MB</span>
              <Button
                onClick={() => setAsks(one)}
                aria-label={`Go back to ${dayOf(one.day)}${one.why && `, ${one.why}`}`}
              >
                Go back
              </Button>
            </li>
          ))}
        </ul>
        {asks && (
          <div className="look-again" role="alertdialog" aria-label="Going back">
            <p>
              Everything becomes as it was in the copy of {dayOf(asks.day)}
              {asks.why && `, ${asks.why}`}. What is here now is kept as a copy first, so you can come back to it.
            </p>
            <p className="commands">
              <Button autoFocus onClick={() => setAsks(undefined)}>
                Leave it as it is
              </Button>
              <Button danger loading={busy} onClick={() => void run(asks)}>
                Go back to it
              </Button>
            </p>
          </div>
        )}
        {refused && (
          <p className="spoil" role="alert">
            {refused}
          </p>
        )}
      </details>
      <p>
        <a href="/api/report.txt" download>
          Tell us what went wrong
        </a>{' '}
        <span className="quiet">A text to read before you give it away: it names nothing of yours.</span>
      </p>
    </section>
  );
}
