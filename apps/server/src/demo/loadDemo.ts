import { hash } from '@node-rs/argon2';
import { randomBytes } from 'node:crypto';
import type { DataSource } from 'typeorm';
import { type ContentBundle, loadContent } from '@heathstep/content';
import { addDays } from '@heathstep/core';
import { AppUser, Clinic, ContentReview, Person } from '../persistence/entities.js';
import { CLINIC_ID, CLINICIAN, demoId, today, userId } from './ids.js';
import { loadDemoCaptures } from './captures.js';
import { loadDemoLibrary } from './library.js';
import { OTHER_COURSES } from './otherCourses.js';
import { LONGER_COURSES } from './longerCourses.js';
import { BENCH_PEOPLE } from './benchPeople.js';
import { loadPlannedVisits } from './plannedVisits.js';
import { PROTOCOL_PEOPLE } from './protocolPeople.js';
import { DemoPersonLoader } from './loadPerson.js';
import { DEMO_PEOPLE, DEMO_REFERRALS } from './people.js';

export interface DemoSignIn {
  readonly email: string;
  readonly password: string;
  readonly role: string;
}

const CLINIC = {
  id: CLINIC_ID,
  name: 'Heathstep demo clinic',
  locale: 'en-GB',
  timeZone: 'Europe/London',
  phone: '01632 960 311',
  emergencyNumber: '999',
};
const USERS = [
  { name: 'Orla Rendell', email: 'orla.rendell@heathstep.example', role: 'lead' as const },
  { name: 'Tomas Fell', email: 'tomas.fell@heathstep.example', role: 'clinician' as const },
  { name: 'Wren Atley', email: 'wren.atley@heathstep.example', role: 'assistant' as const },
];
export async function demoIsLoaded(source: DataSource): Promise<boolean> {
  return (await source.manager.countBy(Clinic, { id: CLINIC_ID })) > 0;
}

/** Removes the demo clinic and everything of it, and nothing else. */
export async function removeDemo(source: DataSource): Promise<void> {
  const tables = [
    'person_merge',
    'consent',
    'outing',
    'letter',
    'letter_template',
    'kept_resource',
    'program_key',
    'erasure',
    'people_import',
    'measurement_import',
    'appointment',
    'home_question',
    'set_aside',
    'taught_exercise',
    'band_calibration',
    'exercise_note',
    'exercise_favourite',
    'clinic_exercise',
    'home_entry',
    'home_session',
    'home_link',
    'decision',
    'closure',
    'plan',
    'photo_placement',
    'photo',
    'visit_presence',
    'clinic_measure',
    'course_event',
    'lab_capture',
    'visit_entry',
    'visit',
    'stage_span',
    'episode',
    'person',
    'user_session',
    'account_link',
    'recovery_code',
    'passkey',
    'app_user',
    'audit_seal',
    'audit',
    'content_review',
  ];
  await source.transaction(async (tx) => {
    for (const table of tables) await tx.query(`DELETE FROM ${table} WHERE clinic_id = $1`, [CLINIC_ID]);
    await tx.query('DELETE FROM clinic WHERE id = $1', [CLINIC_ID]);
  });
}

function contentOrThrow(): ContentBundle {
  const loaded = loadContent();
  if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
  return loaded.content;
}

/** Loads the made-up clinic with dates relative to now, so that every state is there to be seen. */
export async function loadDemo(source: DataSource, now: Date): Promise<DemoSignIn[]> {
  const content = contentOrThrow();
  const chosen = process.env['HEATHSTEP_DEMO_PASSWORD'];
  const password = chosen !== undefined && chosen !== '' ? chosen : `heath-${randomBytes(5).toString('hex')}`;
  await source.transaction(async (tx) => {
    await tx.insert(Clinic, CLINIC);
    for (const u of USERS)
      await tx.insert(AppUser, {
        id: userId(u.email),
        clinicId: CLINIC_ID,
        email: u.email,
        name: u.name,
        role: u.role,
        passwordHash: await hash(password),
      });
    for (const item of [
      'protocol:plantar-heel-pain',
      'measure:lunge-knee-bent',
      'measure:single-leg-heel-raise',
      'rule:review',
      'rule:pain',
    ]) {
      await tx.insert(ContentReview, {
        clinicId: CLINIC_ID,
        item,
        version: 1,
        reviewer: 'Orla Rendell',
        reviewedOn: addDays(today(now), -53),
      });
    }
    for (const referral of DEMO_REFERRALS) {
      await tx.insert(Person, {
        id: demoId('person', referral.name),
        clinicId: CLINIC_ID,
        name: referral.name,
        birthDate: referral.born,
        occupation: referral.occupation,
        version: 1,
        createdAt: now,
      });
    }
    for (const person of [
      ...DEMO_PEOPLE,
      ...BENCH_PEOPLE,
      ...PROTOCOL_PEOPLE,
      ...LONGER_COURSES,
      ...OTHER_COURSES,
    ])
      await new DemoPersonLoader(tx, content, now, person).load();
    await loadPlannedVisits(tx, now);
    await loadDemoCaptures(tx, now);
    await loadDemoLibrary(tx, content, {
      clinicId: CLINIC_ID,
      who: {
        lead: userId('orla.rendell@heathstep.example'),
        leadName: 'Orla Rendell',
        clinician: CLINICIAN,
        episode: demoId('episode', 'Marit Osgar'),
      },
      id: demoId,
      now,
    });
  });
  return USERS.map((u) => ({ email: u.email, password, role: u.role }));
}
