import type { EntityManager } from 'typeorm';
import { addDays } from '@heathstep/core';
import { Appointment } from '../persistence/entities.js';
import { CLINIC_ID, CLINICIAN, demoId, today } from './ids.js';

/** Visits of today and the next days: whose, when and for how long. */
const PLANNED: readonly (readonly [
  name: string,
  inDays: number,
  time: string,
  minutes: number,
  note: string,
])[] = [
  ['Birke Holloway', 0, '09:00', 30, ''],
  ['Oskar Thwaite', 0, '10:15', 30, 'Between two shifts'],
  ['Ilse Venning', 0, '11:30', 30, ''],
  ['Tilda Marsh', 0, '14:00', 45, 'Brings the running shoes'],
  ['Øyvind Farrow', 1, '09:30', 30, ''],
  ['Ragna Thirlby', 2, '16:00', 30, ''],
  ['Marit Osgar', 3, '08:45', 30, 'Before the round'],
];

export async function loadPlannedVisits(tx: EntityManager, now: Date): Promise<void> {
  for (const [name, inDays, time, minutes, note] of PLANNED)
    await tx.insert(Appointment, {
      id: demoId('appointment', name),
      clinicId: CLINIC_ID,
      personId: demoId('person', name),
      day: addDays(today(now), inDays),
      time,
      minutes,
      note,
      state: 'planned',
      uid: null,
      version: 1,
      authorId: CLINICIAN,
      at: now,
    });
}
