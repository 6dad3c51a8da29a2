import { say, wrongHours } from '@heathstep/core';
import { Body, Controller, HttpCode, Put } from '@nestjs/common';
import { ClinicBody, type ClinicDefaults, ClinicDefaultsBody } from '@heathstep/contracts';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { badRequest, type FieldError } from '../http/problem.js';
import { audit, Db } from '../persistence/db.js';
import { AppUser, Clinic } from '../persistence/entities.js';

const isLocale = (tag: string): boolean => {
  try {
    return Intl.DateTimeFormat.supportedLocalesOf(tag).length === 1;
  } catch {
    return false;
  }
};

const isTimeZone = (name: string): boolean => {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
};

/** What of a clinic this machine cannot write days by. */
export function wrongOfClinic({ locale, timeZone }: ClinicBody): FieldError[] {
  return [
    ...(isLocale(locale)
      ? []
      : [{ pointer: '/locale', detail: say('must be a language tag such as en-GB') }]),
    ...(isTimeZone(timeZone)
      ? []
      : [{ pointer: '/timeZone', detail: say('must be a time zone such as Europe/London') }]),
  ];
}

/** What the clinic says of itself, on every paper and phone. */
@Controller('api/clinic')
@Roles('lead')
export class ClinicController {
  constructor(private readonly db: Db) {}

  @HttpCode(204)
  @Put()
  change(@Me() me: SignedIn, @Body() body: ClinicBody): Promise<void> {
    const wrong = wrongOfClinic(body);
    if (wrong.length > 0) throw badRequest(wrong);
    return this.db.inClinic(me.clinicId, async (tx) => {
      const { name, phone, emergencyNumber, locale, timeZone } = body;
      await tx.update(
        Clinic,
        { id: me.clinicId },
        { name: name.trim(), phone: phone.trim(), emergencyNumber, locale, timeZone },
      );
      await audit(tx, me, { action: 'change', subject: 'clinic', personId: null });
    });
  }

  /** What the clinic has decided for all of its work. Who asks everyone for a second step has one. */
  @Put('defaults')
  decide(@Me() me: SignedIn, @Body() body: ClinicDefaultsBody): Promise<ClinicDefaults> {
    const day = wrongHours(body.hours);
    if (day !== null)
      throw badRequest([
        { pointer: `/hours/${String(day)}`, detail: say('from an earlier time to a later one') },
      ]);
    return this.db.inClinic(me.clinicId, async (tx) => {
      if (body.secondStep) {
        const { totpSecret } = await tx.findOneByOrFail(AppUser, { id: me.userId });
        if (totpSecret === null)
          throw badRequest([
            {
              pointer: '/secondStep',
              detail: say('Set up your own second step first: in Account and devices'),
            },
          ]);
      }
      const { lockMinutes, secondStep, painSchool, letterhead, contact, emergency, hours } = body;
      const defaults: ClinicDefaults = {
        lockMinutes,
        secondStep,
        painSchool,
        letterhead: letterhead.trim(),
        contact: contact.trim(),
        emergency: emergency.trim(),
        hours: hours.map((h) => (h === null ? null : { from: h.from, to: h.to })),
      };
      await tx.update(Clinic, { id: me.clinicId }, { defaults });
      await audit(tx, me, { action: 'change', subject: 'clinic', personId: null });
      return defaults;
    });
  }
}
