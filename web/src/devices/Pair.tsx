import { Button, Input } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { api, unwrap } from '../api/client';
import { useAct } from '../app/useAct';

/** What this device is called until it is said otherwise. */
const usual = () => (/iPad|Android|Tablet/i.test(navigator.userAgent) ? 'Tablet' : 'Telephone or tablet');

/** A device that is not let in yet: it gives the code of the first screen. */
export function Pair() {
  const given = new URLSearchParams(location.search).get('code') ?? '';
  const [code, setCode] = useState(given);
  const [name, setName] = useState(usual);
  const act = useAct(
    async () => {
      await unwrap(api.POST('/api/pairing/devices', { body: { code, name } }));
      location.assign('/');
    },
    { once: true },
  );
  const scanned = useRef(given !== '');
  useEffect(() => {
    // the code is not kept among the addresses that were visited
    if (scanned.current) history.replaceState(null, '', '/pair');
  }, []);
  return (
    <main className="stage pair">
      <h1>Pair this device</h1>
      <p>On the first screen of Idle Selvage, on the machine it runs on, stands a code.</p>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void act.run();
        }}
      >
        <label htmlFor="pair-code">Code</label>
        <Input
          id="pair-code"
          size="large"
          autoComplete="one-time-code"
          autoCapitalize="characters"
          value={code}
          maxLength={40}
          onChange={(e) => setCode(e.target.value)}
        />
        <label htmlFor="pair-name">What this device is called</label>
        <Input id="pair-name" size="large" value={name} maxLength={60} onChange={(e) => setName(e.target.value)} />
        <Button
          type="primary"
          size="large"
          htmlType="submit"
          loading={act.busy}
          disabled={!code.trim() || !name.trim()}
        >
          Pair it
        </Button>
      </form>
      {act.error && (
        <p className="spoil" role="alert">
          {act.error}
        </p>
      )}
    </main>
  );
}
