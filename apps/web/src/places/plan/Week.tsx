import {
  type Active,
  type Announcements,
  closestCenter,
  type CollisionDetection,
  DndContext,
  type DragEndEvent,
  type DragOverEvent,
  KeyboardSensor,
  type KeyboardCoordinateGetter,
  type Modifier,
  MouseSensor,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { useState } from 'react';
import {
  type ComposedExercise,
  dueDays,
  shown,
  withDayMoved,
  withDayToggled,
  say,
  DAY_PARTS,
  mayHavePart,
} from '@heathstep/core';
import type { EpisodeView } from '@heathstep/contracts';
import { TimeOfDay } from './TimeOfDay.js';
import type { PlanLine, PlanModel } from './planModel.js';
import { conflictText, dayName, DAYS } from './weekWords.js';

interface Cell {
  readonly exercise: string;
  readonly day: number;
}

const cellOf = (data: { current?: unknown } | undefined): Cell | null =>
  (data?.current as Cell | undefined) ?? null;

/** A mark only goes to another day of its own row. */
const inItsRow: CollisionDetection = (args) =>
  closestCenter({
    ...args,
    droppableContainers: args.droppableContainers.filter(
      (c) => cellOf(c.data)?.exercise === cellOf(args.active.data)?.exercise,
    ),
  });

const sideways: Modifier = ({ transform }) => ({ ...transform, y: 0 });

/** An arrow goes one day on, within the week. */
const byOneDay: KeyboardCoordinateGetter = (event, { active, currentCoordinates, context }) => {
  const by = event.code === 'ArrowRight' ? 1 : event.code === 'ArrowLeft' ? -1 : 0;
  const own = cellOf(context.active?.data);
  if (by === 0 || own === null) return undefined;
  event.preventDefault();
  const at = cellOf(context.over?.data)?.day ?? own.day;
  const rect = (day: number) => context.droppableRects.get(`${own.exercise}:${day}`);
  const [from, to] = [rect(at), rect(Math.max(0, Math.min(6, at + by)))];
  if (from === undefined || to === undefined || active === '') return undefined;
  return { ...currentCoordinates, x: currentCoordinates.x + to.left - from.left };
};

interface Move extends Cell {
  readonly to: number;
}

const moveOf = (event: DragEndEvent | DragOverEvent): Move | null => {
  const from = cellOf(event.active.data);
  const to = cellOf(event.over?.data);
  return from === null || to === null ? null : { ...from, to: to.day };
};

/** The items after a mark was moved; null where it stays as it was. */
function moved(items: readonly ComposedExercise[], move: Move | null): readonly ComposedExercise[] | null {
  const item = items.find((i) => i.exercise === move?.exercise);
  const next = item === undefined || move === null ? null : withDayMoved(item, move.day, move.to);
  return next === null ? null : items.map((i) => (i === item ? next : i));
}

interface WeekProps {
  readonly model: PlanModel;
  /** Sums of the plan if it had these items. */
  readonly modelOf: (items: readonly ComposedExercise[]) => PlanModel;
  readonly onChange: (items: readonly ComposedExercise[]) => void;
  readonly episode: EpisodeView;
}

/**
 * A plan drawn as its week: a row an exercise, a mark a day. Marks go to another day by dragging, by touch, or by Space and
 * arrows; what the week would then do against the rules of load is said before the mark is let go.
 */
export function Week({ model, modelOf, onChange, episode }: WeekProps) {
  const [move, setMove] = useState<Move | null>(null);
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 5 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 150, tolerance: 8 } }),
    useSensor(KeyboardSensor, { coordinateGetter: byOneDay }),
  );
  const items = model.lines.map((l) => l.item);
  const next = moved(items, move);
  const seen = next === null ? model : modelOf(next);
  const nameOf = (cell: Cell | null) =>
    model.lines.find((l) => l.exercise.key === cell?.exercise)?.exercise.name ?? '';
  const end = (event: DragEndEvent) => {
    const changed = moved(items, moveOf(event));
    setMove(null);
    if (changed !== null) onChange(changed);
  };
  return (
    <section aria-label={say('The week')} className="mt-6 border-t border-line pt-4">
      <h2>{say('The week')}</h2>
      <p className="text-sm text-ink-2">
        {say(
          'Drag a mark to another day, or press Space on it, go with the arrows, and Space again. An empty day is put on by a press; the time of day is chosen under the name.',
        )}
      </p>
      <TimeOfDay episode={episode} model={model} />
      <DndContext
        sensors={sensors}
        collisionDetection={inItsRow}
        modifiers={[sideways]}
        onDragOver={(event) => setMove(moveOf(event))}
        onDragCancel={() => setMove(null)}
        onDragEnd={end}
        accessibility={{ announcements: announcementsFor(nameOf), screenReaderInstructions: INSTRUCTIONS }}
      >
        <div className="max-md:overflow-x-auto">
          <div className="mt-3 grid grid-cols-[minmax(7rem,13rem)_repeat(7,minmax(2.75rem,1fr))] gap-x-1.5">
            <DaysHead model={seen} agreed={episode.minutesPerDay} />
            {model.lines.map((line) => (
              <Row
                key={line.exercise.key}
                line={line}
                change={(item) => onChange(items.map((i) => (i.exercise === item.exercise ? item : i)))}
              />
            ))}
          </div>
        </div>
      </DndContext>
      <div role="status" aria-live="polite" className="min-h-6 pt-1 text-sm text-ease-deep">
        {seen.conflicts.map((c) => (
          <p key={c.kind}>
            {next === null ? conflictText(c) : say('There: {{conflict}}', { conflict: conflictText(c) })}
          </p>
        ))}
      </div>
    </section>
  );
}

const INSTRUCTIONS = {
  draggable: say(
    'To move it to another day press Space, go with the left and right arrows, and press Space again.',
  ),
};

const announcementsFor = (nameOf: (cell: Cell | null) => string): Announcements => {
  const taken = (active: Active) =>
    say('{{nameOf}}, taken from {{dayName}}', {
      nameOf: nameOf(cellOf(active.data)),
      dayName: dayName(cellOf(active.data)?.day ?? 0),
    });
  return {
    onDragStart: ({ active }) => taken(active),
    // Over its own day it says so again: the day alone would overtake what was taken.
    onDragOver: ({ active, over }) => {
      const day = over === null ? undefined : cellOf(over.data)?.day;
      if (day === undefined) return undefined;
      return day === cellOf(active.data)?.day ? taken(active) : dayName(day);
    },
    onDragEnd: ({ active, over }) =>
      over === null
        ? say('{{nameOf}} stays where it was', { nameOf: nameOf(cellOf(active.data)) })
        : say('{{nameOf}}, put on {{dayName}}', {
            nameOf: nameOf(cellOf(active.data)),
            dayName: dayName(cellOf(over.data)?.day ?? 0),
          }),
    onDragCancel: ({ active }) =>
      say('{{nameOf}} stays where it was', { nameOf: nameOf(cellOf(active.data)) }),
  };
};

/** The days with their minutes, all complaints together. */
function DaysHead({ model, agreed }: { model: PlanModel; agreed: number }) {
  return (
    <>
      <span className="text-sm text-ink-2">{say('minutes')}</span>
      {DAYS.map((name, day) => {
        const minutes = (model.week[day] ?? 0) + (model.weekElsewhere[day] ?? 0);
        const over = minutes > agreed + 0.05;
        return (
          <span key={name} className="border-b border-line pb-1 text-center text-sm">
            <b className="block">{name}</b>
            <span className={over ? 'font-semibold text-hold-deep' : 'text-ink-2'}>
              {minutes === 0 ? say('free') : shown(minutes, 0)}
            </span>
          </span>
        );
      })}
    </>
  );
}

function Row({ line, change }: { line: PlanLine; change: (item: ComposedExercise) => void }) {
  const { item, exercise } = line;
  const due = dueDays(item);
  return (
    <>
      <span className="flex flex-col justify-center border-b border-line-2 py-1 text-sm leading-tight">
        {exercise.name}
        {mayHavePart(item, exercise) && <WhenOfDay item={item} name={exercise.name} change={change} />}
      </span>
      {DAYS.map((name, day) => {
        const next = withDayToggled(item, day, exercise.range.daysPerWeek);
        return (
          <Place key={name} cell={{ exercise: exercise.key, day }}>
            {due.includes(day) ? (
              <Mark
                cell={{ exercise: exercise.key, day }}
                label={`${exercise.name}, ${dayName(day)}`}
                minutes={(line.totals?.daySeconds ?? 0) / 60}
                fixed={due.length === 7}
              />
            ) : (
              <button
                type="button"
                className="block min-h-9 w-full rounded hover:bg-line-2 disabled:hover:bg-transparent pointer-coarse:min-h-11"
                aria-label={say('Also on {{dayName}}, {{name}}', {
                  dayName: dayName(day),
                  name: exercise.name,
                })}
                disabled={next === null}
                onClick={() => next !== null && change(next)}
              />
            )}
          </Place>
        );
      })}
    </>
  );
}

/** The part of the day it is done in; the person's usual time where none is chosen. */
function WhenOfDay({
  item,
  name,
  change,
}: {
  item: ComposedExercise;
  name: string;
  change: (item: ComposedExercise) => void;
}) {
  const { part, ...usual } = item;
  return (
    <select
      className="min-h-9 w-full max-w-36 cursor-pointer bg-transparent text-ink-2 pointer-coarse:min-h-11"
      aria-label={say('When of the day, {{name}}', { name })}
      value={part ?? ''}
      onChange={(e) => {
        const chosen = DAY_PARTS.find((p) => p === e.target.value);
        change(chosen === undefined ? usual : { ...usual, part: chosen });
      }}
    >
      <option value="">{say('usual time')}</option>
      {DAY_PARTS.map((p) => (
        <option key={p} value={p}>
          {say(p)}
        </option>
      ))}
    </select>
  );
}

function Place({ cell, children }: { cell: Cell; children: React.ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: `${cell.exercise}:${cell.day}`, data: cell });
  return (
    <div
      ref={setNodeRef}
      className={`flex items-center border-b border-line-2 py-1 ${isOver ? 'rounded outline-2 outline-dashed outline-heather' : ''}`}
    >
      {children}
    </div>
  );
}

function Mark({
  cell,
  label,
  minutes,
  fixed,
}: {
  cell: Cell;
  label: string;
  minutes: number;
  /** Done every day: there is no other day to go to. */
  fixed: boolean;
}) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({
    id: `${cell.exercise}:${cell.day}`,
    data: cell,
    disabled: fixed,
  });
  const size = 'block min-h-9 w-full rounded text-sm pointer-coarse:min-h-11';
  if (fixed)
    return (
      <span className={`content-center bg-line-2 text-center text-ink-2 ${size}`}>{shown(minutes, 0)}</span>
    );
  return (
    <button
      type="button"
      ref={setNodeRef}
      {...attributes}
      {...listeners}
      aria-label={label}
      className={`${size} touch-manipulation bg-heather-wash font-semibold text-heather-deep cursor-grab ${isDragging ? 'relative z-10 cursor-grabbing shadow-lg' : ''}`}
      style={transform === null ? undefined : { transform: `translateX(${transform.x}px)` }}
    >
      {shown(minutes, 0)}
    </button>
  );
}
