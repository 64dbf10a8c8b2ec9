import { Button } from 'antd';
import type { Bar, BarsFound, ClothChange } from '../../api/client';
import { useTape } from '../../api/hooks';
import { Worked } from '../../app/Working';
import { EntryLength } from '../../fields/Entry';
import { useHeld } from '../../fields/useHeld';
import type { PartProps } from '../../cupboard/ClothEditor';

type Key = 'bars_along' | 'bars_across';
type Repeats = 'repeats_along' | 'repeats_across';

/** The repeat measured once more at several places: how even the weave is decides how surely bars meet. */
function Measured({
  title,
  found,
  name,
  onChange,
}: {
  title: string;
  found: BarsFound;
  name: Repeats;
  onChange: (body: ClothChange) => Promise<unknown>;
}) {
  const kept = found.readings.map((r): number | string => r.mm);
  const send = useHeld(kept, (next) => onChange({ [name]: next }));
  const reading = (i: number) => (text: string) =>
    send((held) => {
      const next = [...held];
      if (text.trim()) next[Math.min(i, next.length)] = text;
      else next.splice(i, 1);
      return next;
    });
  return (
    <>
      <p className="quiet">One repeat measured at several places tells how even the weave is.</p>
      <div className="three">
        {[0, 1, 2].map((i) => (
          <EntryLength
            key={i}
            bare
            label={`${title}: repeat, place ${i + 1}`}
            path={`${name}.${i}`}
            placeholder={`place ${i + 1}`}
            value={found.readings[i]?.text ?? ''}
            onSave={reading(i)}
          />
        ))}
      </div>
      {found.uneven && <p>{found.uneven}</p>}
    </>
  );
}

/** One direction's bars, read off with a tape until they start again. */
function Sequence({
  title,
  bars,
  found,
  name,
  onChange,
}: {
  title: string;
  bars: Bar[];
  found: BarsFound;
  name: Key;
  onChange: (body: ClothChange) => Promise<unknown>;
}) {
  const tape = useTape();
  const kept = bars.map(({ width, colour }): { width: number | string; colour: string } => ({ width, colour }));
  const send = useHeld(kept, (next) => onChange({ [name]: next }));
  return (
    <fieldset className="bars">
      <legend>{title}</legend>
      <ol>
        {bars.map((bar, i) => (
          <li key={i}>
            <input
              type="color"
              aria-label={`Bar ${i + 1}, colour`}
              value={bar.colour}
              onChange={(e) =>
                void send((held) => held.map((b, n) => (n === i ? { ...b, colour: e.target.value } : b)))
              }
            />
            <EntryLength
              bare
              label={`${title}: bar ${i + 1}, width`}
              path={`${name}.${i}.width`}
              value={bar.text}
              onSave={(width) => send((held) => held.map((b, n) => (n === i ? { ...b, width } : b)))}
            />
            <Button
              type="text"
              aria-label={`Remove bar ${i + 1}`}
              onClick={() => void send((held) => held.filter((_, n) => n !== i))}
            >
              remove
            </Button>
          </li>
        ))}
      </ol>
      <Button
        size="small"
        onClick={() =>
          void send((held) => [
            ...held,
            { width: tape.imperial ? tape.mm / 2 : tape.mm, colour: held.length % 2 ? '#E3D9C3' : '#6E7F8D' },
          ])
        }
      >
        {bars.length ? 'Another bar' : 'Begin with a bar'}
      </Button>
      {found.repeat && (
        <p>
          Repeat{' '}
          <b>
            {found.repeat_figure ? (
              <Worked figure={found.repeat_figure} label={`repeat, ${title.toLowerCase()}`}>
                {found.repeat.text}
              </Worked>
            ) : (
              found.repeat.text
            )}
          </b>
          , {found.balanced ? 'balanced' : 'not balanced'}
          {found.dominant && (
            <>
              ; the eye sees the <i className="swatch-dot" style={{ background: found.dominant.colour }} /> bar of{' '}
              {found.dominant.text} first
            </>
          )}
          .
        </p>
      )}
      {found.repeat && (
        <Measured
          title={title}
          found={found}
          name={name === 'bars_along' ? 'repeats_along' : 'repeats_across'}
          onChange={onChange}
        />
      )}
    </fieldset>
  );
}

/** The sequence of bars across and along, and what follows from it. */
export function BarsPart({ cloth, onChange }: PartProps) {
  return (
    <>
      <p className="quiet">
        Lay the tape square to the bars. Give each bar's width and colour in order, the ground between them too, until
        they start again.
      </p>
      <Sequence
        title="Across, from the near selvage"
        name="bars_across"
        bars={cloth.bars_across}
        found={cloth.across}
        onChange={onChange}
      />
      <Sequence
        title="Along, from the cut end"
        name="bars_along"
        bars={cloth.bars_along}
        found={cloth.along}
        onChange={onChange}
      />
      {cloth.bars_note.map((note) => (
        <p key={note}>{note}</p>
      ))}
    </>
  );
}
