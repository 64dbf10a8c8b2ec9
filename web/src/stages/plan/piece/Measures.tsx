import { Input } from 'antd';
import type { Outline, Piece } from '../../../api/client';
import type { Form } from './form';
import { type About, Labelled, type Set } from './Tables';

const SHAPES = [
  ['rectangle', 'a rectangle or strip'],
  ['bias_strip', 'a strip on the bias'],
  ['circle', 'a circle'],
  ['ring', 'a ring: circle skirt, flounce'],
] as const;
const SHARES = [
  ['0.25', 'a quarter'],
  ['0.5', 'half'],
  ['0.75', 'three quarters'],
  ['1', 'a whole circle'],
  ['1.5', 'a circle and a half'],
  ['2', 'two circles'],
] as const;

/** Rectangles, strips, circles and rings by their measures. */
export function MeasuresFields({ form, set, about }: { form: Form; set: Set; about: About }) {
  const m = form.measures;
  const change = (part: Partial<Form['measures']>) => set({ measures: { ...m, ...part } });
  const first = {
    rectangle: 'Long, along the grain',
    bias_strip: 'Long',
    circle: 'Across',
    ring: 'Its inner edge, all round',
  }[m.shape];
  const second = m.shape === 'ring' ? 'Deep, from there to the hem' : 'Wide';
  return (
    <div className="two">
      <div className="entry">
        <label htmlFor="shape">It is</label>
        <select
          id="shape"
          className="choice"
          value={m.shape}
          onChange={(e) => change({ shape: e.target.value as 'circle' })}
        >
          {SHAPES.map(([value, label]) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
      </div>
      <Labelled
        id="measure-first"
        label={first}
        value={m.first}
        wrong={about('measures.first')}
        onType={(f) => change({ first: f })}
      />
      {m.shape !== 'circle' && (
        <Labelled
          id="measure-second"
          label={second}
          value={m.second}
          wrong={about('measures.second')}
          onType={(f) => change({ second: f })}
        />
      )}
      {m.shape === 'ring' && (
        <>
          <div className="entry">
            <label htmlFor="share">Of a circle</label>
            <select id="share" className="choice" value={m.share} onChange={(e) => change({ share: e.target.value })}>
              {SHARES.map(([value, label]) => (
                <option key={value} value={value}>
                  {label}
                </option>
              ))}
            </select>
          </div>
          <div className="entry">
            <label htmlFor="panels">In panels</label>
            <Input
              id="panels"
              data-go
              value={m.panels}
              inputMode="numeric"
              onChange={(e) => change({ panels: e.target.value })}
            />
          </div>
        </>
      )}
    </div>
  );
}

const CHANGES = [
  ['mirrored', 'mirrored'],
  ['lengthened', 'longer or shorter at a line'],
  ['facing', 'the facing of an edge'],
  ['same', 'the same outline, without allowances of its own'],
] as const;

/** A piece made from another one. */
export function AnotherFields({
  form,
  set,
  about,
  pieces,
  base,
}: {
  form: Form;
  set: Set;
  about: About;
  pieces: Piece[];
  base: Outline | undefined;
}) {
  const a = form.another;
  const change = (part: Partial<Form['another']>) => set({ another: { ...a, ...part } });
  return (
    <div className="two">
      <div className="entry">
        <label htmlFor="another">From</label>
        <select
          id="another"
          className="choice"
          value={a.piece_id || ''}
          onChange={(e) => change({ piece_id: Number(e.target.value), edge: 0 })}
        >
          <option value="" disabled>
            choose a piece
          </option>
          {pieces.map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
            </option>
          ))}
        </select>
      </div>
      <div className="entry">
        <label htmlFor="another-how">It is</label>
        <select
          id="another-how"
          className="choice"
          value={a.change}
          onChange={(e) => change({ change: e.target.value as 'same' })}
        >
          {CHANGES.map(([value, label]) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
      </div>
      {a.change === 'lengthened' && (
        <>
          <Labelled
            id="line"
            label="The line lies, along"
            value={a.line}
            wrong={about('another.line')}
            onType={(line) => change({ line })}
          />
          <Labelled
            id="by"
            label="Longer by (shorter: minus)"
            value={a.by}
            wrong={about('another.by')}
            onType={(by) => change({ by })}
          />
        </>
      )}
      {a.change === 'facing' && (
        <>
          <div className="entry">
            <label htmlFor="edge">Of the edge</label>
            <select
              id="edge"
              className="choice"
              value={a.edge}
              onChange={(e) => change({ edge: Number(e.target.value) })}
            >
              {(base?.edges ?? []).map((edge) => (
                <option key={edge.number} value={edge.number}>
                  points {edge.name}, {edge.drawn.text}
                </option>
              ))}
            </select>
          </div>
          <Labelled
            id="facing-width"
            label="Wide"
            value={a.width}
            wrong={about('another.width')}
            onType={(width) => change({ width })}
          />
          <Labelled
            id="facing-upto"
            label="Along its first (empty: all of it)"
            value={a.upto}
            wrong={about('another.upto')}
            onType={(upto) => change({ upto })}
          />
        </>
      )}
    </div>
  );
}
