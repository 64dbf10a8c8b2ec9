import type { BeforeLine } from '../../api/client';

/** What is meant by a line of the list, drawn: the same few strokes for a cloth, a fold, an arrow. */
const DRAWN: Record<BeforeLine['picture'], React.ReactNode> = {
  width: (
    <>
      <rect x="20" y="22" width="160" height="76" className="cloth" />
      {[50, 100, 150].map((x) => (
        <path key={x} d={`M${x},24 V96 M${x - 4},30 L${x},24 L${x + 4},30 M${x - 4},90 L${x},96 L${x + 4},90`} />
      ))}
    </>
  ),
  edge: (
    <>
      <path d="M30,20 H170 L164,100 H36 Z" className="cloth" />
      <path d="M100,20 V100" className="dashed" />
      <path d="M36,100 L164,100" className="strong" />
      <path d="M90,108 h20" />
    </>
  ),
  lay: (
    <>
      <rect x="20" y="20" width="160" height="80" className="cloth" />
      <path d="M30,28 H90 L82,92 H30 Z M98,28 H170 V56 H104 Z M96,64 H170 V92 H92 Z" className="piece" />
      <path d="M176,10 l5,6 10,-12" className="tick" />
    </>
  ),
  copies: (
    <>
      {[0, 1, 2, 3].map((k) => (
        <path key={k} d={`M${28 + 38 * k},30 h24 l4,60 h-32 z`} className="piece" />
      ))}
      <text x="100" y="112">
        1 2 3 4
      </text>
    </>
  ),
  pairs: (
    <>
      <path d="M90,24 L40,30 34,96 H90 Z" className="piece" />
      <path d="M110,24 L160,30 166,96 H110 Z" className="piece" />
      <path d="M100,16 V104" className="dashed" />
    </>
  ),
  direction: (
    <>
      <rect x="20" y="20" width="160" height="80" className="cloth" />
      {[46, 92, 138].map((x) => (
        <path key={x} d={`M${x},60 h28 m-8,-6 l8,6 -8,6`} className="strong" />
      ))}
    </>
  ),
  grain: (
    <>
      <rect x="20" y="20" width="160" height="80" className="cloth" />
      <path d="M50,36 H150 L142,82 H50 Z" className="piece" />
      <path d="M62,60 H134 m-7,-5 l7,5 -7,5" />
      <path d="M66,60 V100 M130,60 V100" className="dashed" />
    </>
  ),
  fold: (
    <>
      <path d="M26,92 H174 V34 H26 Z" className="cloth" />
      <path d="M26,92 q-8,-3 0,-6 H168 V40" className="cloth" />
      <path d="M60,92 V34 M100,92 V34 M140,92 V34" className="dashed" />
    </>
  ),
  flaws: (
    <>
      <rect x="20" y="20" width="160" height="80" className="cloth" />
      <path d="M30,30 H80 V90 H30 Z M120,30 H170 V90 H120 Z" className="piece" />
      <path d="M94,54 l12,12 m0,-12 l-12,12" className="flaw" />
    </>
  ),
  bars: (
    <>
      {[30, 56, 82].map((y) => (
        <rect key={y} x="30" y={y} width="140" height="10" className="bar" />
      ))}
      <path d="M100,20 V100" className="strong" />
    </>
  ),
  wash: (
    <>
      <path d="M30,46 H170 L158,98 H42 Z" className="cloth" />
      <path d="M42,58 q14,-10 28,0 t28,0 28,0 28,0" />
    </>
  ),
  shears: (
    <>
      <path d="M40,34 L128,72 M40,86 L128,48" className="strong" />
      <circle cx="144" cy="42" r="13" />
      <circle cx="144" cy="78" r="13" />
    </>
  ),
  blade: (
    <>
      <circle cx="70" cy="60" r="34" />
      <circle cx="70" cy="60" r="4" />
      <path d="M38,48 A34,34 0 0 1 102,48 L98,60 H42 Z" className="bar" />
      <path d="M100,66 L170,92" className="strong" />
    </>
  ),
};

export function LinePicture({ picture }: { picture: BeforeLine['picture'] }) {
  return (
    <svg viewBox="0 0 200 120" className="line-picture" aria-hidden="true">
      {DRAWN[picture]}
    </svg>
  );
}
