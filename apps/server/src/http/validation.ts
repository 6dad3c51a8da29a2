import { say } from '@heathstep/core';
import { Injectable, type PipeTransform, ValidationPipe } from '@nestjs/common';
import type { ValidationError } from 'class-validator';
import { badRequest, type FieldError, notFound } from './problem.js';

function flatten(errors: readonly ValidationError[], base = ''): FieldError[] {
  return errors.flatMap((e) => {
    const pointer = `${base}/${e.property}`;
    const own = Object.entries(e.constraints ?? {}).map(([rule, detail]) => ({
      pointer,
      detail: rule === 'whitelistValidation' ? say('is not a field here') : say(detail),
    }));
    return [...own.slice(-1), ...flatten(e.children ?? [], pointer)];
  });
}

export const validationPipe = (): ValidationPipe =>
  new ValidationPipe({
    transform: true,
    whitelist: true,
    forbidNonWhitelisted: true,
    exceptionFactory: (errors) => badRequest(flatten(errors)),
  });

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** An id in the address; one that cannot exist is simply not there. */
@Injectable()
export class IdPipe implements PipeTransform<string, string> {
  transform(value: string): string {
    if (!UUID.test(value)) throw notFound();
    return value.toLowerCase();
  }
}
