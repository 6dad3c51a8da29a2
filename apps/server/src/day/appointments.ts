import ical, { ICalEventStatus } from 'ical-generator';
import type { AppointmentView } from '@heathstep/contracts';
import { addDays, say } from '@heathstep/core';
import type { Tx } from '../persistence/db.js';

interface Row extends Omit<AppointmentView, 'personId'> {
  readonly person_id: string;
}

/** Planned visits with the names as they are now. */
const VISITS = `SELECT a.id, a.person_id, p.name, a.day::text, a.time, a.minutes, a.note, a.state, a.uid, a.version
  FROM appointment a JOIN person p ON p.clinic_id = a.clinic_id AND p.id = a.person_id`;

const viewOf = ({ person_id, ...row }: Row): AppointmentView => ({ personId: person_id, ...row });

/** The visits planned on days, both included, by day and time; names as they are now. */
export async function appointmentsBetween(tx: Tx, from: string, to: string): Promise<AppointmentView[]> {
  const rows = await tx.query<Row[]>(
    `${VISITS} WHERE a.day BETWEEN $1 AND $2 ORDER BY a.day, a.time, p.name, a.id`,
    [from, to],
  );
  return rows.map(viewOf);
}

/** Visits planned for one person from a day on. */
export async function plannedFor(tx: Tx, personId: string, from: string): Promise<AppointmentView[]> {
  const rows = await tx.query<Row[]>(
    `${VISITS} WHERE a.person_id = $1 AND a.day >= $2 AND a.state = 'planned' ORDER BY a.day, a.time, a.id`,
    [personId, from],
  );
  return rows.map(viewOf);
}

export async function appointmentOf(tx: Tx, id: string): Promise<AppointmentView | null> {
  const [row] = await tx.query<Row[]>(`${VISITS} WHERE a.id = $1`, [id]);
  return row === undefined ? null : viewOf(row);
}

const OWN = '@heathstep';

/** The id of the visit that an event we gave to a calendar is of; null for anyone else's event. */
export const ownIdOf = (uid: string | null): string | null =>
  uid !== null && /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}@heathstep$/.test(uid)
    ? uid.slice(0, -OWN.length)
    : null;

/**
 * Planned visits for any calendar. Times are floating: nine in the morning at the clinic. Ids stay the same, and one that was
 * cancelled is sent so.
 *
 * @returns iCalendar text (RFC 5545)
 */
export function appointmentsCalendar(
  list: readonly AppointmentView[],
  { clinic, now }: { readonly clinic: string; readonly now: Date },
): string {
  const calendar = ical({ name: clinic, prodId: { company: 'heathstep', product: 'visits' } });
  for (const a of list) {
    const [hours = 0, minutes = 0] = a.time.split(':').map(Number);
    const end = hours * 60 + minutes + a.minutes;
    const endDay = addDays(a.day, Math.floor(end / 1440));
    const endTime = `${String(Math.floor(end / 60) % 24).padStart(2, '0')}:${String(end % 60).padStart(2, '0')}`;
    calendar.createEvent({
      id: a.uid ?? `${a.id}${OWN}`,
      start: `${a.day}T${a.time}:00`,
      end: `${endDay}T${endTime}:00`,
      floating: true,
      stamp: now,
      sequence: a.version - 1,
      status: a.state === 'cancelled' ? ICalEventStatus.CANCELLED : ICalEventStatus.CONFIRMED,
      summary: say('Visit: {{name}}', { name: a.name }),
      ...(a.note === '' ? {} : { description: a.note }),
    });
  }
  return calendar.toString();
}
