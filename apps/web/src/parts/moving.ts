import { type Build, drawFigure, type FigureDefinition, outAndBack } from '@heathstep/core';

/** Out and back, in seconds. */
const CYCLE_SECONDS = 4;

/** Drawings between the start and the end; more than the eye tells apart at this pace. */
const STEPS = 48;

type Frames = (readonly string[] | undefined)[];

const drawn = new WeakMap<FigureDefinition, Map<Build, Frames>>();

/** The outlines of a figure at a step of its way, drawn once and kept as long as the figure is. */
function frameOf(figure: FigureDefinition, build: Build, step: number): readonly string[] {
  const byBuild = drawn.get(figure) ?? new Map<Build, Frames>();
  drawn.set(figure, byBuild);
  const frames = byBuild.get(build) ?? [];
  byBuild.set(build, frames);
  return (frames[step] ??= drawFigure(figure, step / STEPS, false, build).shapes.map((s) => s.d));
}

type Tick = (seconds: number) => void;

const ticking = new Set<Tick>();
let frame = 0;

function run(now: number): void {
  for (const tick of ticking) tick(now / 1000);
  frame = ticking.size === 0 ? 0 : requestAnimationFrame(run);
}

/** One clock for every moving figure of a page; it stands still when none is in view. */
function join(tick: Tick): () => void {
  ticking.add(tick);
  if (frame === 0) frame = requestAnimationFrame(run);
  return () => ticking.delete(tick);
}

/** Moves the paths of a drawing out and back while it is in view. */
export function move(host: SVGSVGElement, figure: FigureDefinition, build: Build): () => void {
  const paths = [...host.querySelectorAll('path')];
  let shown: readonly string[] = [];
  const tick = (seconds: number) => {
    const t = outAndBack((seconds / CYCLE_SECONDS) % 1);
    const next = frameOf(figure, build, Math.round(t * STEPS));
    if (next === shown) return;
    for (let i = 0; i < next.length; i += 1) {
      const d = next[i] ?? '';
      if (d !== shown[i]) paths[i]?.setAttribute('d', d);
    }
    shown = next;
  };
  let leave: (() => void) | null = null;
  const watch = new IntersectionObserver(([entry]) => {
    const seen = entry?.isIntersecting === true;
    if (seen) leave ??= join(tick);
    else {
      leave?.();
      leave = null;
    }
  });
  watch.observe(host);
  return () => {
    watch.disconnect();
    leave?.();
  };
}
