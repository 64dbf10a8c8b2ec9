import { Button } from 'antd';
import { useChoices, useTape } from '../../api/hooks';
import { EntryChoice, EntryLength, EntryText } from '../../fields/Entry';
import { useHeld } from '../../fields/useHeld';
import { bare, type PartProps } from '../../cupboard/ClothEditor';

const ENTRIES = [
  ['x', 'From the cut end'],
  ['y', 'From the near selvage'],
  ['w', 'Along'],
  ['h', 'Across'],
] as const;

/** Places to keep off: by pointer on the picture, or by two readings of the tape. */
export function FlawsPart({
  cloth,
  onChange,
  chosen,
  onChoose,
}: PartProps & { chosen: number | undefined; onChoose: (i: number | undefined) => void }) {
  const tape = useTape();
  const choices = useChoices();
  // round numbers of the person's own tape, to be typed over
  const mark = tape.imperial ? tape.mm / 2 : tape.mm;
  const flaws = cloth.flaws.map(bare);
  const set = useHeld(flaws, (next) => onChange({ flaws: next }));
  const change = (i: number, part: Record<string, unknown>) =>
    set((held) => held.map((f, n) => (n === i ? { ...f, ...part } : f)) as typeof flaws);
  return (
    <>
      <p className="quiet">Draw a box round a flaw on the picture, or add one and type where the tape finds it.</p>
      <Button
        onClick={() => {
          void set((held) => [...held, { x: 10 * mark, y: 10 * mark, w: 2 * mark, h: 2 * mark, what: 'flaw' }]);
          onChoose(flaws.length);
        }}
      >
        Add a flaw
      </Button>
      {cloth.flaws.map((flaw, i) => {
        return (
          // oxlint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- the flaw whose field the hand is in is the one drawn as chosen
          <fieldset key={i} className={i === chosen ? 'flaw-form chosen' : 'flaw-form'} onFocus={() => onChoose(i)}>
            <legend>Flaw {i + 1}</legend>
            <EntryText
              label="What it is"
              path={`flaws.${i}.what`}
              value={flaw.what}
              onSave={(what) => change(i, { what })}
            />
            <div className="two">
              {ENTRIES.map(([key, label]) => (
                <EntryLength
                  key={key}
                  label={label}
                  path={`flaws.${i}.${key}`}
                  value={flaw[key].text}
                  onSave={(v) => change(i, { [key]: v })}
                />
              ))}
            </div>
            <Button
              size="small"
              onClick={() => {
                void set((held) => held.filter((_, n) => n !== i));
                onChoose(undefined);
              }}
            >
              Remove this flaw
            </Button>
          </fieldset>
        );
      })}
      <EntryChoice
        label="A border"
        value={cloth.border}
        options={choices?.border_sides ?? []}
        onSave={(border) => onChange({ border: border as '' })}
      />
      {cloth.border && (
        <>
          <EntryChoice
            label="What it is"
            value={cloth.border_kind}
            options={choices?.borders ?? []}
            onSave={(kind) => onChange({ border_kind: kind as 'print' })}
          />
          <EntryLength
            label="How deep, from the edge of the cloth"
            path="border_deep"
            value={cloth.border_deep.text}
            onSave={(border_deep) => onChange({ border_deep })}
          />
          <p className="quiet">
            Say on Plan, for a piece on the cross grain, that its hem lies on it; all other pieces keep off. Of a
            finished edge nothing is left off.
          </p>
        </>
      )}
      <EntryLength
        label="A faded shop fold, from the near selvage"
        path="shop_fold"
        value={cloth.shop_fold?.text ?? ''}
        placeholder="if there is one"
        onSave={(text) => onChange({ shop_fold: text.trim() ? text : null })}
      />
    </>
  );
}
