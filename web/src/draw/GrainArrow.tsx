/** The grainline: one head when the piece runs one way, two when it may be turned. */
export function GrainArrow({
  tail,
  head,
  oneWay,
}: {
  tail: [number, number];
  head: [number, number];
  oneWay: boolean;
}) {
  const angle = (Math.atan2(head[1] - tail[1], head[0] - tail[0]) * 180) / Math.PI;
  // a short arrow has smaller heads, so that a line is still seen between them
  const size = Math.min(8, Math.hypot(head[0] - tail[0], head[1] - tail[1]) / 3);
  const tip = `M0,0 L${-size},${-0.4 * size} L${-size},${0.4 * size} Z`;
  return (
    <g className="grain" aria-hidden="true">
      <line x1={tail[0]} y1={tail[1]} x2={head[0]} y2={head[1]} />
      <path d={tip} transform={`translate(${head[0]} ${head[1]}) rotate(${angle})`} />
      {!oneWay && <path d={tip} transform={`translate(${tail[0]} ${tail[1]}) rotate(${angle + 180})`} />}
    </g>
  );
}
