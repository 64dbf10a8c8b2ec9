const line = {
  fill: 'none',
  stroke: '#23272E',
  strokeWidth: 2,
  strokeLinejoin: 'round' as const,
  strokeLinecap: 'round' as const,
};
const cloth = { fill: '#C9D3D6', stroke: '#2A3B6B', strokeWidth: 2, strokeLinejoin: 'round' as const };

/** A small drawing of how to find out. */
export function HandPicture({ question }: { question: string }) {
  return (
    <svg viewBox="0 0 72 72" width="72" height="72" className="hand-picture" aria-hidden="true">
      {question === 'drape' && (
        <>
          <path d="M10,24 H62" {...line} strokeWidth={7} />
          <path
            d="M18,20 Q36,12 54,20 Q60,40 54,64 Q50,52 45,64 Q40,50 36,64 Q32,50 27,64 Q22,52 18,64 Q12,40 18,20 Z"
            {...cloth}
          />
        </>
      )}
      {question === 'sheer' && (
        <>
          <rect x="10" y="8" width="52" height="56" {...line} />
          <path d="M36,8 V64 M10,36 H62" {...line} strokeWidth={1.2} />
          <rect x="18" y="18" width="36" height="42" {...cloth} fillOpacity={0.75} />
          <path d="M28,54 V36 M33,54 V30 M38,54 V30 M43,54 V33 M26,54 H46" {...line} strokeOpacity={0.55} />
        </>
      )}
      {question === 'hand' && (
        <>
          <rect x="10" y="42" width="52" height="10" {...cloth} />
          <rect x="18" y="32" width="52" height="10" {...cloth} fill="#DEE5E6" />
          <path d="M8,24 H34 M27,18 L35,24 L27,30" {...line} />
        </>
      )}
      {question === 'rub' && (
        <>
          <rect x="8" y="40" width="56" height="18" {...cloth} fill="#3B5C86" />
          <path d="M24,40 Q22,22 36,20 Q50,22 48,40 Z" fill="#fff" stroke="#23272E" strokeWidth={2} />
          <path d="M30,40 Q36,34 42,40 Z" fill="#3B5C86" />
          <path d="M14,12 H58 M20,7 L13,12 L20,17 M52,7 L59,12 L52,17" {...line} />
        </>
      )}
    </svg>
  );
}
