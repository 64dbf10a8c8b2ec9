import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Button } from 'antd';
import { api, saved, unwrap } from '../api/client';
import { keys } from '../api/keys';
import { useAct } from '../app/useAct';

function usePairing() {
  return useQuery({
    queryKey: keys.pairing,
    // a device that was paired does not see it: that is told on the first screen only
    queryFn: () => unwrap(api.GET('/api/pairing')).catch(() => null),
    staleTime: 0,
  }).data;
}

const when = (iso: string) => new Date(iso).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' });

/** On the first screen, where the door is open: the code for a tablet, and the devices that were let in. */
export function Pairing() {
  const client = useQueryClient();
  const found = usePairing();
  const revoke = useAct(async (device_id: number) =>
    client.setQueryData(
      keys.pairing,
      await saved(api.DELETE('/api/pairing/devices/{device_id}', { params: { path: { device_id } } })),
    ),
  );
  if (!found?.open && !found?.devices.length) return null;
  return (
    <section className="pairing" aria-label="Tablets">
      <h2>Tablets and telephones in the house</h2>
      {found.open && (
        <div className="pairing-code">
          {found.qr && <img src={found.qr} alt="The address with its code" />}
          <p>
            Scan it, or open <b>{found.addresses[0] ?? 'this machine’s address'}pair</b> and type{' '}
            <b className="code">{found.code}</b>. Only on a network you trust: it is not encrypted.
          </p>
        </div>
      )}
      {found.devices.length > 0 && (
        <ul>
          {found.devices.map((device) => (
            <li key={device.id}>
              <b>{device.name}</b>{' '}
              <span className="quiet">
                paired {when(device.paired)}, seen {when(device.seen)}
              </span>{' '}
              <Button aria-label={`Take the pairing of ${device.name} back`} onClick={() => void revoke.run(device.id)}>
                Take back
              </Button>
            </li>
          ))}
        </ul>
      )}
      {revoke.error && <p className="spoil">{revoke.error}</p>}
    </section>
  );
}

/** How a tablet comes to the cutting table. */
export function Tablet() {
  const found = usePairing();
  if (!found) return null;
  return (
    <section>
      <h2>On a tablet</h2>
      {found.open ? (
        <p>
          Open <b>{found.addresses[0] ?? ''}pair</b> on it and type <b className="code">{found.code}</b>.
        </p>
      ) : (
        <p>
          Start the program with <code>idle-selvage serve --lan</code>: the first screen then shows a code to pair a
          tablet with. Without it only this machine is answered.
        </p>
      )}
    </section>
  );
}
