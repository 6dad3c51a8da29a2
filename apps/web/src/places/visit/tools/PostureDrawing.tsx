/** Our own small drawings of a posture item, as it looks toward supination (-1) and toward pronation (+1). */
const DRAWINGS: Readonly<Record<string, (lean: -1 | 1) => React.ReactNode>> = {
  'talar-head': (lean) => (
    <>
      <path d="M10 44 C12 30 20 22 30 22 C44 22 52 34 56 44 Z" className="fill-line-2 stroke-ink" />
      <circle cx={lean < 0 ? 20 : 44} cy="32" r="5" className="fill-heather" />
    </>
  ),
  'outer-curves': (lean) => (
    <path
      d={
        lean < 0
          ? 'M26 4 C34 14 30 22 32 26 C34 32 36 40 34 50'
          : 'M26 4 C36 12 40 18 36 24 C26 30 26 38 38 50'
      }
      className="fill-none stroke-ink"
      strokeWidth="2.5"
    />
  ),
  'heel-line': (lean) => (
    <>
      <path d="M26 4 V24 M38 4 V24" className="fill-none stroke-ink" strokeWidth="1.5" />
      <g transform={`rotate(${lean * -14} 32 26)`}>
        <path d="M24 24 C22 40 24 50 32 50 C40 50 42 40 40 24 Z" className="fill-line-2 stroke-ink" />
        <path d="M32 24 V50" className="stroke-heather" strokeWidth="2" />
      </g>
    </>
  ),
  'inner-bulge': (lean) => (
    <path
      d={
        lean < 0
          ? 'M10 8 C16 22 24 30 26 34 C24 40 20 46 22 50 L56 50'
          : 'M10 8 C16 20 20 26 14 34 C10 40 16 46 22 50 L56 50'
      }
      className="fill-none stroke-ink"
      strokeWidth="2.5"
    />
  ),
  'arch-shape': (lean) => (
    <path
      d={
        lean < 0
          ? 'M6 48 C10 48 12 44 16 38 C24 24 36 26 44 40 C48 46 54 48 58 48'
          : 'M6 48 C12 48 18 46 24 45 C34 44 42 46 58 48'
      }
      className="fill-none stroke-ink"
      strokeWidth="2.5"
    />
  ),
  'forefoot-line': (lean) => (
    <>
      <path d="M24 20 C22 40 24 50 32 50 C40 50 42 40 40 20 Z" className="fill-line-2 stroke-ink" />
      {(lean < 0 ? [18, 12] : [46, 51, 56]).map((x) => (
        <circle key={x} cx={x} cy="46" r="4" className="fill-heather" />
      ))}
    </>
  ),
};

export function PostureDrawing({ item, lean, title }: { item: string; lean: -1 | 1; title: string }) {
  const draw = DRAWINGS[item];
  return (
    <svg viewBox="0 0 64 56" className="h-11 w-12 shrink-0" role="img" aria-label={title}>
      <title>{title}</title>
      {draw?.(lean)}
    </svg>
  );
}
