import { Button } from 'antd';
import type { Gesture, Lay } from '../../api/client';

/** Which rules the lay breaks, what each will cost, and whether it is meant. */
export function BrokenRules({
  lay,
  onDo,
  onChoose,
}: {
  lay: Lay;
  onDo: (gesture: Gesture) => Promise<boolean>;
  onChoose: (keys: string[]) => void;
}) {
  if (lay.broken.length === 0) return null;
  return (
    <section aria-label="Rules it breaks" className="broken-rules">
      <h2>Rules it breaks</h2>
      <ul>
        {lay.broken.map((one) => (
          <li key={one.sign} className={one.meant ? 'meant' : one.spoils ? 'spoil' : 'look'}>
            <p>
              <b>{one.told}</b> {one.cost}
            </p>
            <p>
              {one.keys.length > 0 && (
                <Button size="small" onClick={() => onChoose(one.keys)}>
                  Show
                </Button>
              )}{' '}
              <Button
                size="small"
                onClick={() => void onDo({ do: one.meant ? 'refuse' : 'accept', sign: one.sign })}
                aria-pressed={one.meant}
              >
                {one.meant ? 'Accepted: not after all' : 'It is meant so'}
              </Button>
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
