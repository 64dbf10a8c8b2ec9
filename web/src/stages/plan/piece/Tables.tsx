import { Button, Checkbox, Input } from 'antd';
import { useTape } from '../../../api/hooks';
import {
  type Corner,
  type Field,
  type Form,
  type FormPoint,
  noPoint,
  noStation,
  noTape,
  type Station,
  type TapeRow,
  typed,
} from './form';
import { Tip } from '../../../app/Tip';

export type Set = (part: Partial<Form>) => void;
/** What is wrong with an entry, by where the server says it is. */
export type About = (path: string) => string | undefined;

type CellProps = {
  label: string;
  value: Field;
  wrong?: string | undefined;
  onType: (field: Field) => void;
  onFocus?: (() => void) | undefined;
  placeholder?: string;
};

/** A length in a table; Enter goes on to the next one. */
export function Cell({ label, value, wrong, onType, onFocus, placeholder }: CellProps) {
  return (
    <Tip title={wrong}>
      <Input
        value={value.text}
        data-tape
        data-go
        aria-label={label}
        aria-invalid={!!wrong}
        aria-description={wrong}
        status={wrong ? 'error' : undefined}
        placeholder={placeholder}
        onFocus={onFocus}
        onChange={(e) => onType(typed(e.target.value))}
      />
    </Tip>
  );
}

/** The same with its label above it. */
export function Labelled(props: CellProps & { id: string }) {
  return (
    <div className="entry">
      <label htmlFor={props.id}>{props.label}</label>
      <Input
        id={props.id}
        value={props.value.text}
        data-tape
        data-go
        status={props.wrong ? 'error' : undefined}
        aria-invalid={!!props.wrong}
        placeholder={props.placeholder}
        onFocus={props.onFocus}
        onChange={(e) => props.onType(typed(e.target.value))}
      />
      {props.wrong && <span className="say spoil">{props.wrong}</span>}
    </div>
  );
}

const CORNERS: [Corner, string][] = [
  ['', 'none'],
  ['left', 'left'],
  ['right', 'right'],
  ['both', 'both'],
];
type TableProps = { form: Form; set: Set; about: About; rows: number[] };

/** At distances along the grain, how far the edge lies; a side that is left empty was not read there. */
export function StationsTable({ form, set, about, rows }: TableProps) {
  const tape = useTape();
  const change = (i: number, part: Partial<Station>) =>
    set({ rows: form.rows.map((r, n) => (n === i ? { ...r, ...part } : r)) });
  const sides = form.on_fold ? (['along', 'left'] as const) : (['along', 'left', 'right'] as const);
  return (
    <>
      <p className="how">
        Lay the tape along the grainline, 0 at the bottom end. At each place measure square to it, left and right, to
        the edge; leave a side empty where only the other has a point. Enter goes to the next field.{' '}
        {tape.imperial ? 'Inches' : 'Centimetres'} unless you write the unit.
      </p>
      <table className="station-table telling">
        <thead>
          <tr>
            <th>along the grain</th>
            <th>{form.on_fold ? 'fold to edge' : 'left'}</th>
            {!form.on_fold && <th>right</th>}
            <th>corner</th>
            <th>
              <span className="unseen">take out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {form.rows.map((row, i) => (
            <tr key={i}>
              {sides.map((side) => (
                <td key={side}>
                  <Cell
                    label={`station ${i + 1}, ${side}`}
                    value={row[side]}
                    wrong={about(`stations.${rows.indexOf(i)}.${side}`)}
                    onType={(f) => change(i, { [side]: f })}
                  />
                </td>
              ))}
              <td>
                <select
                  className="choice"
                  aria-label={`station ${i + 1}, corner`}
                  value={row.corners}
                  disabled={!form.smooth}
                  onChange={(e) => change(i, { corners: e.target.value as Corner })}
                >
                  {CORNERS.filter(([c]) => !form.on_fold || c === '' || c === 'left').map(([c, said]) => (
                    <option key={c} value={c}>
                      {said}
                    </option>
                  ))}
                </select>
              </td>
              <td>
                <Button
                  type="text"
                  disabled={form.rows.length <= 2}
                  aria-label={`Remove station ${i + 1}`}
                  onClick={() => set({ rows: form.rows.filter((_, n) => n !== i) })}
                >
                  remove
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="commands">
        <Button onClick={() => set({ rows: [...form.rows, noStation()] })}>Another station</Button>
        <Checkbox className="tick" checked={form.smooth} onChange={(e) => set({ smooth: e.target.checked })}>
          smooth curve through the stations (else straight)
        </Checkbox>
      </p>
    </>
  );
}

type PointsProps = TableProps & { chosen: number | undefined; onChoose: (key: number) => void };

/** Points by two readings, going round the edge. */
export function PointsTable({ form, set, about, rows, chosen, onChoose }: PointsProps) {
  const tape = useTape();
  const change = (i: number, part: Partial<FormPoint>) =>
    set({ points: form.points.map((p, n) => (n === i ? { ...p, ...part } : p)) });
  return (
    <>
      <p className="how">
        Go round the edge, either way. For each point: how far along the tape, 0 where you like, and how far square to
        it; to the right with a minus, or “12 right”. Enter goes to the next field.{' '}
        {tape.imperial ? 'Inches' : 'Centimetres'} unless you write the unit.
      </p>
      <table className="station-table telling points-table">
        <thead>
          <tr>
            <th>
              <span className="unseen">point</span>
            </th>
            <th>along the tape</th>
            <th>to the left</th>
            <th>smooth</th>
            <th>
              straight on<span className="unseen"> to the next point</span>
            </th>
            <th>
              <span className="unseen">take out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {form.points.map((p, i) => {
            const at = rows.indexOf(i);
            const focus = () => p.key && onChoose(p.key);
            return (
              <tr key={i} className={p.key !== 0 && p.key === chosen ? 'chosen' : undefined}>
                <th scope="row">{at >= 0 ? at + 1 : <span className="unseen">not told yet</span>}</th>
                <td>
                  <Cell
                    label={`point ${i + 1}, along`}
                    value={p.along}
                    wrong={about(`points.${at}.along`)}
                    onFocus={focus}
                    onType={(along) => change(i, { along })}
                  />
                </td>
                <td>
                  <Cell
                    label={`point ${i + 1}, across`}
                    value={p.across}
                    wrong={about(`points.${at}.across`)}
                    onFocus={focus}
                    onType={(across) => change(i, { across })}
                  />
                </td>
                <td>
                  <Checkbox
                    aria-label={`point ${i + 1}, smooth`}
                    checked={p.smooth}
                    onChange={(e) => change(i, { smooth: e.target.checked })}
                  />
                </td>
                <td>
                  <Checkbox
                    aria-label={`point ${i + 1}, straight on`}
                    checked={p.straight}
                    onChange={(e) => change(i, { straight: e.target.checked })}
                  />
                </td>
                <td>
                  <Button
                    type="text"
                    disabled={form.points.length <= 3}
                    aria-label={`Remove point ${i + 1}`}
                    onClick={() => set({ points: form.points.filter((_, n) => n !== i) })}
                  >
                    remove
                  </Button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <Button onClick={() => set({ points: [...form.points, noPoint(form.points.at(-1))] })}>Another point</Button>
    </>
  );
}

/** Points by their distances from two marks. */
export function TapesTable({ form, set, about, rows }: TableProps) {
  const change = (i: number, part: Partial<TapeRow>) =>
    set({ tapes: form.tapes.map((t, n) => (n === i ? { ...t, ...part } : t)) });
  return (
    <>
      <p className="how">
        Make two marks on the grainline, the first towards the low end, far from one another. Hook a tape on each: every
        point of the edge is told by its two distances, and by which side of the grainline it lies on. Go round the
        edge.
      </p>
      <Labelled
        id="tapes-apart"
        label="From the first mark to the second"
        value={form.apart}
        wrong={about('tapes.apart')}
        onType={(apart) => set({ apart })}
      />
      <table className="station-table telling">
        <thead>
          <tr>
            <th>
              <span className="unseen">point</span>
            </th>
            <th>from the first</th>
            <th>from the second</th>
            <th>side</th>
            <th>smooth</th>
            <th>
              <span className="unseen">take out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {form.tapes.map((t, i) => {
            const at = rows.indexOf(i);
            return (
              <tr key={i}>
                <th scope="row">{at >= 0 ? at + 1 : <span className="unseen">not told yet</span>}</th>
                <td>
                  <Cell
                    label={`point ${i + 1}, from the first mark`}
                    value={t.first}
                    wrong={about(`tapes.points.${at}.first`)}
                    onType={(first) => change(i, { first })}
                  />
                </td>
                <td>
                  <Cell
                    label={`point ${i + 1}, from the second mark`}
                    value={t.second}
                    wrong={about(`tapes.points.${at}.second`)}
                    onType={(second) => change(i, { second })}
                  />
                </td>
                <td>
                  <select
                    className="choice"
                    aria-label={`point ${i + 1}, side`}
                    value={t.side}
                    onChange={(e) => change(i, { side: e.target.value as 'left' })}
                  >
                    <option value="left">left</option>
                    <option value="right">right</option>
                  </select>
                </td>
                <td>
                  <Checkbox
                    aria-label={`point ${i + 1}, smooth`}
                    checked={t.smooth}
                    onChange={(e) => change(i, { smooth: e.target.checked })}
                  />
                </td>
                <td>
                  <Button
                    type="text"
                    disabled={form.tapes.length <= 3}
                    aria-label={`Remove point ${i + 1}`}
                    onClick={() => set({ tapes: form.tapes.filter((_, n) => n !== i) })}
                  >
                    remove
                  </Button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <Button onClick={() => set({ tapes: [...form.tapes, noTape(form.tapes.at(-1))] })}>Another point</Button>
    </>
  );
}
