import { useAct } from '../../app/useAct';
import { Button, Radio } from 'antd';
import { useState } from 'react';
import { useTape } from '../../api/hooks';
import { Worked } from '../../app/Working';
import { EntryChoice, EntryLength } from '../../fields/Entry';
import { AttemptsChart, PlacesChart } from './Charts';
import { HangingCloth } from './HangingCloth';
import { Explained } from '../../app/Words';
import { waiting } from '../../app/Waits';
import type { PartProps } from './useTrue';

const SIDES = [
  { value: 'far', label: 'the far one, behind' },
  { value: 'near', label: 'the near one, in front' },
];

/** The fold test: the reading as a picture and as a number, what to do next, and every test so far. */
export function TestPart({ found, calls, project }: PartProps) {
  const tape = useTape();
  const [drag, setDrag] = useState<{ offset: number; bow: number }>();
  const [typed, setTyped] = useState<number>();
  const { run: drop, error } = useAct(async (reading: { offset: number; bow: number }) => {
    setDrag(reading);
    await calls
      .change({
        now: { offset: Math.abs(reading.offset), side: reading.offset < 0 ? 'near' : 'far', bow: reading.bow },
      })
      .finally(() => setDrag(undefined));
  });
  const { now, advice } = found;
  const { side } = found;
  const text = (mm: number) =>
    tape.imperial ? `${(Math.abs(mm) / 25.4).toFixed(2)} in` : `${(Math.abs(mm) / 10).toFixed(1)} cm`;
  // until the next reading the cloth hangs as it did at the last test
  const last = now.read ? undefined : found.tests.at(-1);
  // nor was it tested since it was treated: then it hangs as it is about
  const before = drag || typed !== undefined ? null : found.before;
  const offset =
    drag?.offset ??
    (typed === undefined ? (before?.signed ?? last?.signed ?? now.signed) : typed * (side === 'near' ? -1 : 1));
  const bow = drag?.bow ?? before?.bow.mm ?? last?.bow.mm ?? now.bow.mm;
  if (found.width === null)
    return (
      <>
        <h1>{found.headline}</h1>
        {!waiting(project, 'true') && <p className="look">{found.missing}</p>}
      </>
    );
  async function strike(id: number) {
    await calls.strike(id);
  }
  return (
    <div className="true-test">
      <div className="picture-side">
        <h1 className={advice?.band === 'true' ? 'good' : undefined}>{found.headline}</h1>
        <HangingCloth
          cloth={project.cloth}
          wide={found.width.value}
          offset={offset}
          bow={bow}
          ripple={found.fold.ripple}
          largest={Math.abs(found.before?.signed ?? last?.signed ?? now.signed)}
          predicted={before !== null}
          told={
            drag
              ? text(drag.offset)
              : typed === undefined
                ? before
                  ? `about ${before.offset.text}`
                  : (last ?? now).offset.text
                : text(typed)
          }
          onDrag={setDrag}
          onDrop={(r) => void drop(r)}
        />
        <div className="readings-row">
          <EntryLength
            label="Edges apart"
            path="now.offset"
            value={drag ? text(drag.offset) : now.read ? now.offset.text : ''}
            placeholder="0 when level"
            onTyping={setTyped}
            onSave={(v) => calls.change({ now: { offset: v, side } })}
          />
          <EntryChoice
            label="The longer side"
            value={side}
            options={SIDES}
            onSave={(v) => calls.change({ now: { side: v as 'far' } })}
          />
          <EntryLength
            label="Bowed out at the fold"
            path="now.bow"
            value={drag ? text(drag.bow) : now.bow.text}
            onSave={(v) => calls.change({ now: { bow: v } })}
          />
          <EntryLength
            label="Read at, along"
            path="now.place"
            value={now.place.text}
            onSave={(v) => calls.change({ now: { place: v } })}
          />
          <EntryChoice
            label="Done before it"
            value={now.done}
            options={found.done_choices}
            onSave={(v) => calls.change({ now: { done: v as '' } })}
          />
        </div>
        {error && (
          <p className="spoil" role="alert">
            {error}
          </p>
        )}
        <p className="commands">
          <Button type="primary" disabled={!now.read} onClick={() => void calls.writeDown()}>
            Write this test down
          </Button>
          {found.skew && (
            <span>
              slant{' '}
              <Worked figure={found.skew} label="skew">
                {found.skew.text}
              </Worked>
              ,{' '}
              <Worked figure={found.angle!} label="angle">
                {found.angle!.text}
              </Worked>
            </span>
          )}
          {found.bow && found.bow.value > 0 && (
            <span>
              bow{' '}
              <Worked figure={found.bow} label="bow">
                {found.bow.text}
              </Worked>
            </span>
          )}
          {found.basis && <span className="quiet">from {found.basis}</span>}
        </p>
      </div>
      <aside className="facts">
        {advice ? (
          <section>
            <h2>What to do next</h2>
            <ol className="treat-steps">
              {advice.steps.map((s) => (
                <li key={s}>{s}</li>
              ))}
            </ol>
            {advice.cautions.length > 0 && (
              <ul className="cautions">
                {advice.cautions.map((c) => (
                  <li key={c}>
                    <Explained text={c} />
                  </li>
                ))}
              </ul>
            )}
            {advice.forbids.map((f) => (
              <p key={f} className="spoil">
                <Explained text={f} />
              </p>
            ))}
            {advice.other.map((o) => (
              <p key={o} className="quiet">
                <Explained text={o} />
              </p>
            ))}
            {advice.chooses && (
              <fieldset>
                <legend>How it is straightened</legend>
                {advice.schools.map((s) => (
                  <Radio
                    key={s.value}
                    className="school"
                    name="school"
                    checked={advice.school === s.value}
                    disabled={s.forbidden}
                    onChange={() => void calls.change({ school: s.value as 'pin' })}
                  >
                    <b>{s.label}</b>
                    {s.forbidden && <span className="spoil"> not for this cloth</span>}
                    <br />
                    <span className="quiet">{s.why}</span>
                  </Radio>
                ))}
                <p className="quiet">
                  {advice.schools.find((s) => s.value === advice.school)?.label}: {advice.school_why}.
                </p>
              </fieldset>
            )}
          </section>
        ) : (
          <section>
            <h2>How to test</h2>
            <ol className="treat-steps">
              <li>Make one true edge: see First edge. A cut edge proves nothing, even a square one.</li>
              <li>Fold selvage to selvage, hold the selvages level and let it hang.</li>
              <li>Read how far apart the edges are, or drag the corner on the picture to where it is.</li>
            </ol>
          </section>
        )}
        <section>
          <h2>Tests so far</h2>
          <p className={found.loop_state === 'true' ? 'good' : found.loop_state === 'stop' ? 'look' : 'quiet'}>
            {found.loop_told}
          </p>
          {found.loop_state === 'stop' && !found.accepted && (
            <Button onClick={() => void calls.change({ accepted: true })}>Take the happy medium</Button>
          )}
          {found.accepted && (
            <p className="good">
              ✓ A happy medium is taken.{' '}
              <Button size="small" onClick={() => void calls.change({ accepted: false })}>
                Take that back
              </Button>
            </p>
          )}
          <AttemptsChart found={found} />
          <PlacesChart found={found} />
          {found.good_from && (
            <p className="look">
              From {found.good_from.text} on it is good: lay the pieces there.{' '}
              <Button size="small" onClick={() => void calls.change({ cut_off: found.good_from!.mm })}>
                Lay from there
              </Button>
            </p>
          )}
          <ol className="plain-list tests">
            {found.tests.toReversed().map((t) => (
              <li key={t.id}>
                <b>{t.offset.text}</b> {t.long_side && `(${t.long_side} side long)`} at {t.place.text}, {t.done_label}
                <Button
                  type="text"
                  size="small"
                  aria-label={`Strike out the test of ${t.offset.text}`}
                  onClick={() => void strike(t.id)}
                >
                  strike out
                </Button>
              </li>
            ))}
          </ol>
          <Bands found={found} calls={calls} project={project} />
        </section>
      </aside>
    </div>
  );
}

/** The bands are a setting. */
function Bands({ found, calls }: PartProps) {
  const names = ['true up to', 'steamed up to', 'straightened up to'];
  return (
    <details className="past">
      <summary>The bands</summary>
      <div className="three">
        {found.bands.map((band, k) => (
          <EntryLength
            key={names[k]}
            label={names[k]!}
            path="bands"
            value={band.text}
            onSave={(v) => calls.change({ bands: found.bands.map((b, n) => (n === k ? v : b.mm)) })}
          />
        ))}
      </div>
      <p className="quiet">
        Over the whole width; common practice.{' '}
        <Button size="small" onClick={() => void calls.change({ bands: [] })}>
          As usual
        </Button>
      </p>
      <p className="quiet">{found.limit}</p>
    </details>
  );
}
