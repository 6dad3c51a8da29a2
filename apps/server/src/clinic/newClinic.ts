import { randomUUID } from 'node:crypto';
import { type AccountLinkView, NewClinicBody } from '@heathstep/contracts';
import { validate } from 'class-validator';
import type { DataSource } from 'typeorm';
import { badRequest, type FieldError } from '../http/problem.js';
import { AppUser, Clinic } from '../persistence/entities.js';
import { newLink } from './accountLinks.js';
import { wrongOfClinic } from './clinic.controller.js';

async function wrongOf(body: NewClinicBody): Promise<FieldError[]> {
  const found = await validate(body);
  const wrong = found.map((e) => ({
    pointer: `/${e.property}`,
    detail: Object.values(e.constraints ?? {})[0] ?? 'cannot be taken',
  }));
  const said = new Set(wrong.map((w) => w.pointer));
  return [...wrong, ...wrongOfClinic(body).filter((w) => !said.has(w.pointer))];
}

/**
 * Makes a clinic and its first lead, as the owner of the tables; the lead chooses a password by the link. Throws a problem with
 * what is wrong, by field.
 */
export async function makeClinic(
  source: DataSource,
  said: Readonly<Record<keyof NewClinicBody, string>>,
  now: Date,
): Promise<AccountLinkView> {
  const body = Object.assign(new NewClinicBody(), said);
  const wrong = await wrongOf(body);
  if (wrong.length > 0) throw badRequest(wrong);
  const email = body.email.toLowerCase();
  return source.transaction(async (tx) => {
    const taken = await tx
      .createQueryBuilder(AppUser, 'u')
      .where('lower(u.email) = :email', { email })
      .getExists();
    if (taken) throw badRequest([{ pointer: '/email', detail: 'Someone signs in with this e-mail already' }]);
    const clinicId = randomUUID();
    const { name, locale, timeZone, phone, emergencyNumber } = body;
    await tx.insert(Clinic, { id: clinicId, name, locale, timeZone, phone, emergencyNumber });
    const userId = randomUUID();
    await tx.insert(AppUser, {
      id: userId,
      clinicId,
      name: body.lead,
      email,
      role: 'lead',
      passwordHash: null,
      registration: null,
      leftAt: null,
    });
    return newLink(tx, { clinicId, userId, createdBy: null }, now);
  });
}
