import { Button } from 'antd';
import { useState } from 'react';
import type { Cloth } from '../../api/client';
import { useChoices } from '../../api/hooks';
import { DraftScope, EntryChoice, EntryLength, EntryText } from '../../fields/Entry';
import { useHeld } from '../../fields/useHeld';
import type { PartProps } from '../../cupboard/ClothEditor';
import { States } from './States';

/** Fibres and their shares; one fibre is all of it. */
function Blend({ cloth, onChange }: PartProps) {
  const choices = useChoices();
  const send = (blend: { fibre: string; share: number | string }[]) => onChange({ blend });
  const { blend } = cloth;
  const left = Math.max(1, 100 - blend.reduce((sum, part) => sum + part.share, 0));
  return (
    <fieldset>
      <legend>Made of</legend>
      {blend.length === 0 && (
        <EntryChoice
          label="Fibre"
          value=""
          options={choices?.fibres ?? []}
          placeholder="choose"
          onSave={(fibre) => send([{ fibre, share: 100 }])}
        />
      )}
      {blend.map((part, i) => (
        <div key={i} className="share">
          <EntryChoice
            label={i === 0 ? 'Fibre' : 'and'}
            value={part.fibre}
            options={choices?.fibres ?? []}
            onSave={(fibre) => send(blend.map((p, n) => (n === i ? { ...p, fibre } : p)))}
          />
          <EntryText
            label="Share"
            path={`blend.${i}.share`}
            unit="%"
            value={String(part.share)}
            onSave={(share) => send(blend.map((p, n) => (n === i ? { ...p, share } : p)))}
          />
          {blend.length > 1 && (
            <Button
              type="text"
              aria-label={`Remove fibre ${i + 1}`}
              onClick={() => void send(blend.filter((_, n) => n !== i))}
            >
              remove
            </Button>
          )}
        </div>
      ))}
      {blend.length > 0 && blend.length < 4 && (
        <Button
          size="small"
          onClick={() =>
            void send([
              ...blend,
              { fibre: blend.some((p) => p.fibre === 'polyester') ? 'elastane' : 'polyester', share: left },
            ])
          }
        >
          Another fibre
        </Button>
      )}
      {cloth.blend_note && <p className="look">{cloth.blend_note}</p>}
    </fieldset>
  );
}

/** Name, fibres, widths, margins, length, weight, price, colour. Widths and length are those of one state of the cloth. */
export function MeasuresPart({
  cloth,
  onChange,
  onTyping,
}: PartProps & { onTyping: (key: string) => (mm: number | undefined) => void }) {
  const choices = useChoices();
  // an earlier state that was asked for; else the one it is in, which a wash elsewhere may move on
  const [chosen, setChosen] = useState<number>();
  const state =
    cloth.states.find((s) => s.id === chosen) ?? cloth.states.find((s) => s.id === cloth.state) ?? cloth.states.at(-1)!;
  const now = state.id === cloth.state;
  // what is only predicted is shown as what it is about, until it is measured
  const about = (figure: Cloth['width_now']) => (now && figure?.note ? `about ${figure.text}` : undefined);

  const change = useHeld<(number | string)[]>(
    state.widths.map((r) => r.mm),
    (width_readings) => onChange({ width_readings, state: state.id }),
  );
  function reading(i: number) {
    return async (text: string) => {
      let at = i;
      try {
        await change((held) => {
          const kept = [...held];
          at = Math.min(i, kept.length);
          if (text.trim()) kept[at] = text;
          else kept.splice(i, 1);
          return kept;
        });
      } catch (fault) {
        const refusal = fault as { fields?: { path: string; message: string }[] };
        for (const f of refusal.fields ?? []) if (f.path === `width_readings.${at}`) f.path = `width_readings.${i}`;
        throw fault;
      }
    };
  }
  const optional = (key: 'mass' | 'price') => (text: string) => onChange({ [key]: text.trim() ? text : null });
  return (
    <>
      <EntryText
        label="Name"
        path="name"
        value={cloth.name}
        placeholder="such as Linen stripe"
        onSave={(name) => onChange({ name })}
      />
      <States cloth={cloth} value={state.id} onChoose={(id) => setChosen(id === cloth.state ? undefined : id)} />
      <DraftScope value={`cloth-${cloth.id}-${state.id}`} key={state.id}>
        <fieldset>
          <legend>Width, selvage to selvage, in three places</legend>
          <div className="three" data-main>
            {[0, 1, 2].map((i) => (
              <EntryLength
                key={i}
                bare
                label={`Width, reading ${i + 1}`}
                path={`width_readings.${i}`}
                placeholder={about(cloth.width_now) ?? `place ${i + 1}`}
                value={state.widths[i]?.text ?? ''}
                onTyping={now ? onTyping(`width_readings.${i}`) : undefined}
                onSave={reading(i)}
              />
            ))}
          </div>
        </fieldset>
        <EntryLength
          yardage
          label={now ? 'Length in hand, if any' : `Length ${state.name}`}
          path="in_hand"
          value={state.length?.text ?? ''}
          placeholder={about(cloth.length_now)}
          onTyping={now ? onTyping('in_hand') : undefined}
          onSave={(text) => onChange({ in_hand: text.trim() ? text : null, state: state.id })}
        />
      </DraftScope>
      <div className="two">
        <EntryLength
          label="Near selvage not used"
          path="margin_low"
          value={cloth.margin_low.text}
          onTyping={onTyping('margin_low')}
          onSave={(v) => onChange({ margin_low: v })}
        />
        <EntryLength
          label="Far selvage not used"
          path="margin_high"
          value={cloth.margin_high.text}
          onTyping={onTyping('margin_high')}
          onSave={(v) => onChange({ margin_high: v })}
        />
      </div>
      <p className="quiet">{cloth.margin_hint}</p>
      <Blend cloth={cloth} onChange={onChange} />
      <div className="two">
        <EntryChoice
          label="Weave or kind"
          value={cloth.weave}
          options={choices?.weaves ?? []}
          onSave={(weave) => onChange({ weave })}
        />
        <EntryChoice
          label="Finish"
          value={cloth.finish}
          options={choices?.finishes ?? []}
          onSave={(finish) => onChange({ finish })}
        />
        <EntryText
          label="Weight"
          path="mass"
          unit={cloth.mass_unit}
          value={cloth.mass_text}
          onSave={optional('mass')}
        />
        <EntryText
          label="Price"
          path="price"
          unit={`per ${cloth.price_unit}`}
          value={cloth.price?.toFixed(2) ?? ''}
          onSave={optional('price')}
        />
        <EntryChoice
          label="Price is for one"
          value={cloth.price_unit}
          options={[
            { value: 'm', label: 'metre' },
            { value: 'yd', label: 'yard' },
          ]}
          onSave={(v) => onChange({ price_unit: v as 'm' })}
        />
        <EntryChoice
          label="Colour depth"
          value={cloth.depth}
          options={['light', 'medium', 'dark'].map((v) => ({ value: v, label: v }))}
          onSave={(v) => onChange({ depth: v as 'light' })}
        />
        <div className="entry">
          <label htmlFor="ground">Colour in the picture</label>
          <input
            id="ground"
            type="color"
            value={cloth.ground}
            onChange={(e) => void onChange({ ground: e.target.value })}
          />
        </div>
      </div>
    </>
  );
}
