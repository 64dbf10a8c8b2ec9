import { Button } from 'antd';
import { DoButton } from '../../app/DoButton';
import { useState } from 'react';
import type { Project, Shrink } from '../../api/client';
import { useChanges, useTape } from '../../api/hooks';
import { Worked } from '../../app/Working';
import { EntryChoice, EntryLength } from '../../fields/Entry';
import { useHeld } from '../../fields/useHeld';
import { Answer } from './Answer';
import { CyclesChart } from './CyclesChart';
import { Readings } from './Readings';
import { SwatchPicture } from './SwatchPicture';

type Value = number | string | null;

/** The marked square's two diagonals, before and after each wash: they show a slant. One may wait for the other. */
function Diagonals({
  shrink,
  washes,
  onSave,
}: {
  shrink: Shrink;
  washes: number;
  onSave: (d: (Value[] | null)[]) => Promise<unknown>;
}) {
  const change = useHeld(
    shrink.diagonals.map((pair) => pair?.map((d): Value => d?.mm ?? null) ?? null),
    onSave,
  );
  function keep(wash: number, k: 0 | 1) {
    return (text: string) =>
      change((held) => {
        const next = Array.from({ length: Math.max(held.length, wash + 1) }, (_, i) => held[i] ?? null);
        const pair: Value[] = [...(next[wash] ?? [null, null])];
        pair[k] = text.trim() ? text : null;
        next[wash] = pair;
        return next;
      });
  }
  return (
    <details className="diagonals" open={shrink.diagonals.length > 0}>
      <summary>The diagonals, to see a slant</summary>
      <table className="readings">
        <tbody>
          {(['A to C', 'B to D'] as const).map((name, k) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              {Array.from({ length: washes + 1 }, (_, wash) => (
                <td key={wash}>
                  <EntryLength
                    bare
                    label={`diagonal ${name}, ${wash === 0 ? 'before' : `after wash ${wash}`}`}
                    path={`diagonals.${wash}`}
                    placeholder={wash === 0 ? 'before' : 'after'}
                    value={shrink.diagonals[wash]?.[k]?.text ?? ''}
                    onSave={keep(wash, k as 0 | 1)}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}

/** A cloth's swatch: readings, its shape before and after, what it says, and whether it has come to rest. */
export function SwatchPart({ project, shrink }: { project: Project; shrink: Shrink }) {
  const changes = useChanges();
  const [more, setMore] = useState(false);
  const { warp_known: warp, weft_known: weft } = shrink;
  const marked = shrink.warp.length + shrink.weft.length > 0;
  // a column for the wash that is to come: the first always, later ones when they are wanted
  const washes = Math.max(1, shrink.washes + (more ? 1 : 0));
  const width = project.tally.find((t) => t.key === 'width');
  const swatch = async (body: Parameters<typeof changes.swatch>[0]) => {
    await changes.swatch(body);
    setMore(false);
  };
  const marks = useTape().imperial ? ['10 in', '6 1/2 in'] : ['25 cm', '10 in'];
  async function square(text: string) {
    // three marks each way of a square swatch, as most people cut it
    await swatch({ warp: [[text], [text], [text]], weft: [[text], [text], [text]] });
  }
  const measured = shrink.washes > 0;
  return (
    <>
      <h1>
        {warp.plan && weft.plan ? (
          <>
            Plan with{' '}
            <Worked figure={warp.plan} label="shrinkage to plan with, along">
              {warp.plan.text}
            </Worked>{' '}
            along and{' '}
            <Worked figure={weft.plan} label="shrinkage to plan with, across">
              {weft.plan.text}
            </Worked>{' '}
            across
          </>
        ) : (
          'Wash a swatch, to know'
        )}
      </h1>
      {shrink.simulated && (
        <p className="look">These readings are made up by the stand-in washer. Measure a real swatch before you cut.</p>
      )}
      {measured &&
        [...new Set([warp.told, weft.told])].filter(Boolean).map((told) => (
          <p key={told} className="look">
            {told}
          </p>
        ))}
      {!measured && (
        <p className="look">
          {warp.basis === 'range' ? 'These are the ranges of common practice for this fibre, not of your cloth. ' : ''}
          {warp.basis === 'history' ? 'These are your own tests of like cloth, not of this one. ' : ''}
          {shrink.how_to_begin}
        </p>
      )}
      <div className="shrink-grid">
        <div>
          <SwatchPicture project={project} shrink={shrink} />
          <p className={shrink.too_small ? 'look' : 'quiet'}>{shrink.marks_told}</p>
          <EntryLength
            label="The tape is read to"
            path="graduation"
            value={shrink.graduation.text}
            onSave={(graduation) => swatch({ graduation })}
          />
          {marked && (
            <>
              <EntryChoice
                label="The swatch’s wash"
                value={shrink.wash}
                options={[{ value: '', label: 'not written down' }, ...shrink.washes_offered]}
                onSave={(wash) => swatch({ wash })}
              />
              <EntryChoice
                label="Its drying"
                value={shrink.dry}
                options={[{ value: '', label: 'not written down' }, ...shrink.dries_offered]}
                onSave={(dry) => swatch({ dry })}
              />
            </>
          )}
        </div>
        <div className="shrink-readings">
          {!marked && (
            <p className="commands">
              <Button onClick={() => void square(marks[0]!)}>Marked {marks[0]} both ways, three times</Button>
              <Button onClick={() => void square(marks[1]!)}>Marked {marks[1]}</Button>
            </p>
          )}
          <div className={washes > 1 ? 'readings-one' : 'readings-two'}>
            <Readings direction="warp" rows={shrink.warp} washes={washes} onSave={(rows) => swatch({ warp: rows })} />
            <Readings direction="weft" rows={shrink.weft} washes={washes} onSave={(rows) => swatch({ weft: rows })} />
          </div>
          {marked && <Diagonals shrink={shrink} washes={washes} onSave={(diagonals) => swatch({ diagonals })} />}
          <p className="commands">
            {measured && !more && <Button onClick={() => setMore(true)}>It was washed again</Button>}
            {marked && <DoButton onDo={() => changes.washSwatch()}>Wash it in the stand-in washer</DoButton>}
            {measured && (
              <DoButton type="text" onDo={() => changes.addSwatch()}>
                Another swatch
              </DoButton>
            )}
          </p>
          {shrink.swatches.length > 1 && (
            <ul className="swatches">
              {shrink.swatches.map((s, i) => (
                <li key={s.id}>
                  Swatch {shrink.swatches.length - i}: {s.text}
                  {s.simulated && ' (stand-in)'}{' '}
                  {s.used ? (
                    <b>gone by</b>
                  ) : (
                    <Button size="small" onClick={() => void changes.goBySwatch(s.id)}>
                      Go by this one
                    </Button>
                  )}
                </li>
              ))}
            </ul>
          )}
        </div>
        <div className="answers">
          <p className={`verdict verdict-${shrink.verdict}`}>{measured && shrink.verdict_text}</p>
          <Answer name="Warp" known={warp} />
          <Answer name="Weft" known={weft} />
          {shrink.cycles.length > 0 && <CyclesChart cycles={shrink.cycles} />}
          {shrink.cycles.at(-1)?.skew && (
            <p>
              Slant after washing:{' '}
              <Worked figure={shrink.cycles.at(-1)!.skew!} label="skew">
                {shrink.cycles.at(-1)!.skew!.text}
              </Worked>
            </p>
          )}
          {width?.figure && (
            <p>
              Without selvages, <b>{width.figure.text}</b> are left to lay on: {width.label}.
            </p>
          )}
          {project.purchase && (
            <p>
              Divide, never add: adding would give {project.purchase.rule_of_thumb.text},{' '}
              <Worked figure={project.purchase.adding_short} label="adding instead of dividing">
                {project.purchase.adding_short.text} short
              </Worked>
              .
            </p>
          )}
          {shrink.past.length > 0 && (
            <details className="past">
              <summary>
                Your {shrink.past.length} {shrink.past.length === 1 ? 'test' : 'tests'} of like cloth
              </summary>
              <ul>
                {shrink.past.map((p, i) => (
                  <li key={i}>
                    {p.cloth}: {p.warp} along, {p.weft} across
                  </li>
                ))}
              </ul>
              <p className="quiet">{shrink.past_note}</p>
            </details>
          )}
        </div>
      </div>
    </>
  );
}
