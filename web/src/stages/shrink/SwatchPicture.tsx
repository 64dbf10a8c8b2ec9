import type { Project } from "../../api/client";

const SIDE = 270;

const mean = (values: number[]) => (values.length ? values.reduce((a, b) => a + b, 0) / values.length : undefined);

/** The swatch before (dashed) and after (woven), laid over each other at one scale. */
export function SwatchPicture({ project }: { project: Project }) {
  const { warp, weft } = project.shrink;
  const both = (pairs: typeof warp) => {
    const washed = pairs.filter((p) => p.after);
    return { before: mean((washed.length ? washed : pairs).map((p) => p.before.mm)), after: mean(washed.map((p) => p.after!.mm)) };
  };
  const x = both(warp);
  const y = both(weft);
  const w = x.before ?? y.before ?? 250;
  const h = y.before ?? x.before ?? 250;
  const scale = SIDE / Math.max(w, h);
  const after = x.after !== undefined || y.after !== undefined;
  const aw = (x.after ?? w) * scale;
  const ah = (y.after ?? h) * scale;
  const top = 30 + h * scale;
  return (
    <svg viewBox="0 0 350 350" className="swatch" role="img" aria-label="The swatch before and after washing">
      <defs>
        <pattern id="swatch-weave" patternUnits="userSpaceOnUse" width="8" height="8">
          <rect width="8" height="8" fill={project.cloth.ground} />
          <path d="M0,2 H4 M4,6 H8" stroke="#fff" strokeOpacity="0.5" strokeWidth="1.6" />
          <path d="M2,4 V8 M6,0 V4" stroke="#000" strokeOpacity="0.12" strokeWidth="1.6" />
        </pattern>
      </defs>
      {after && <rect x="40" y={top - ah} width={aw} height={ah} fill="url(#swatch-weave)" stroke="#2A3B6B" strokeWidth="2" />}
      <rect x="40" y={top - h * scale} width={w * scale} height={h * scale} fill={after ? "none" : "url(#swatch-weave)"}
        stroke="#23272E" strokeWidth="1.4" strokeDasharray="6 4" />
      <text x={40 + (w * scale) / 2} y="20" textAnchor="middle" className="label">dashed: before washing</text>
      <text x={40 + (w * scale) / 2} y={top + 22} textAnchor="middle" className="label-strong">warp, along the selvage →</text>
      <text transform={`translate(28 ${top - (h * scale) / 2}) rotate(-90)`} textAnchor="middle" className="label-strong">weft, across →</text>
    </svg>
  );
}
