import { say } from '@heathstep/core';
import { Body, Controller, HttpCode, Put } from '@nestjs/common';
import { ClinicBody } from '@heathstep/contracts';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { badRequest, type FieldError } from '../http/problem.js';
import { audit, Db } from '../persistence/db.js';
import { Clinic } from '../persistence/entities.js';

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
}
