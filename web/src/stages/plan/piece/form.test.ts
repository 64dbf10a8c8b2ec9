import { describe, expect, it } from 'vitest';
import type { Outline } from '../../../api/client';
import { blank, type Form, noPoint, noStation, noTape, pointsOf, revived, said, sent, telling, typed } from './form';

const stations = (...rows: [string, string, string][]): Form => ({
  ...blank(),
  rows: rows.map(([along, left, right]) => ({
    ...noStation(),
    along: typed(along),
    left: typed(left),
    right: typed(right),
  })),
});

describe('a length in a field', () => {
  it('is sent exactly while nothing else was typed, else as it was typed', () => {
    expect(sent({ text: '12.7 cm', mm: 127.3 })).toBe(127.3);
    expect(sent({ text: '5 in' })).toBe('5 in');
  });
});

describe('telling by stations', () => {
  it('says nothing before there are two of them', () => {
    expect(telling(blank())).toBeUndefined();
    expect(telling(stations(['0', '12', '12'], ['', '', '']))).toBeUndefined();
  });
  it('leaves rows out in which nothing was typed, and knows where the others stand', () => {
    const form = stations(['0', '12', '12'], ['', '', ''], ['40', '18', '18']);
    expect(said(form)).toEqual([0, 2]);
    expect(telling(form)).toMatchObject({
      stations: [
        { along: '0', left: '12' },
        { along: '40', right: '18' },
      ],
    });
  });
  it('a side left empty was not read there, once the other was', () => {
    expect(telling(stations(['0', '12', ''], ['40', '', '18']))).toMatchObject({
      stations: [
        { left: '12', right: null },
        { left: null, right: '18' },
      ],
    });
  });
  it('on the fold has a left side only', () => {
    const form = { ...stations(['0', '12', '99'], ['40', '18', '']), on_fold: true };
    expect(telling(form)).toMatchObject({
      on_fold: true,
      stations: [
        { left: '12', right: 0 },
        { left: '18', right: 0 },
      ],
    });
    // a right side alone says nothing there
    expect(said({ ...stations(['', '', '7']), on_fold: true })).toEqual([]);
    expect(said(stations(['', '', '7']))).toEqual([0]);
  });
});

describe('telling by other ways', () => {
  it('point by point needs three, and sends an allowance only where one was typed', () => {
    const point = (key: number, along: string, allowance = '') => ({
      ...noPoint(),
      key,
      along: typed(along),
      across: typed('0'),
      allowance: typed(allowance),
    });
    const two = { ...blank(), way: 'points' as const, points: [point(1, '0'), point(2, '5')] };
    expect(telling(two)).toBeUndefined();
    expect(telling({ ...two, points: [...two.points, point(3, '9', '2 cm')] })).toMatchObject({
      no_arrow: true,
      points: [{ key: 1, allowance: null }, { key: 2 }, { key: 3, allowance: '2 cm' }],
    });
  });
  it('two tapes need to know how far apart they begin', () => {
    const row = () => ({ ...noTape(), first: typed('10'), second: typed('12') });
    const form = { ...blank(), way: 'tapes' as const, tapes: [row(), row(), row()] };
    expect(telling(form)).toBeUndefined();
    expect(telling({ ...form, apart: typed('20') })).toMatchObject({
      tapes: { apart: '20', points: [{ first: '10', second: '12' }, {}, {}] },
    });
  });
  it('a circle needs one measure, a rectangle two; panels that are no number are none', () => {
    const form = (shape: 'circle' | 'rectangle', second: string, panels = '2'): Form => ({
      ...blank(),
      way: 'measures',
      measures: { shape, first: typed('30'), second: typed(second), share: '0.5', panels },
    });
    expect(telling(form('rectangle', ''))).toBeUndefined();
    expect(telling(form('rectangle', '7'))).toMatchObject({ measures: { second: '7', share: 0.5, panels: 2 } });
    expect(telling(form('circle', '', 'two'))).toMatchObject({ measures: { first: '30', second: 0, panels: 0 } });
  });
  it('from another piece only once it is known which, and by how much', () => {
    const form = (change: 'same' | 'lengthened' | 'facing', piece_id = 7): Form => ({
      ...blank(),
      way: 'another',
      another: { ...blank().another, piece_id, change },
    });
    expect(telling(form('same', 0))).toBeUndefined();
    expect(telling(form('lengthened'))).toBeUndefined();
    expect(telling(form('facing'))).toBeUndefined();
    expect(telling(form('same'))).toMatchObject({ another: { piece_id: 7, line: 0, by: 0, upto: null } });
  });
});

describe('a draft of before', () => {
  it('is found again, with what was added to forms since', () => {
    const { grain: _, ...old } = { ...blank(), name: 'Sleeve' };
    expect(revived(JSON.stringify(old), blank())).toMatchObject({ name: 'Sleeve', grain: 'lengthwise' });
  });
  it('that cannot be read is none', () => {
    for (const text of [null, '', '{', 'null', '{"points": 3}']) expect(revived(text, blank())).toEqual(blank());
  });
});

it('a drawn piece becomes points, with its arrow only where both ends are told', () => {
  const at = (mm: number) => ({ mm, text: `${mm} mm` });
  const outline = {
    points: [{ key: 4, along: at(0), across: at(5), smooth: true, straight: false, allowance: null, ends: 'mitre' }],
    arrow_told: [{ along: at(1), across: at(2) }],
    included: at(0),
    notches: [{ after: 4, at: at(9), double: true, place: [0, 0] }],
    marks: [],
  } as unknown as Outline;
  const form = pointsOf(outline);
  expect(form.points[0]).toMatchObject({ key: 4, along: { text: '0 mm', mm: 0 }, allowance: null });
  expect(form.arrow).toBeNull();
  expect(form.notches).toEqual([{ after: 4, at: { text: '9 mm', mm: 9 }, double: true }]);
});
