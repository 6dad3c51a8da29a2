import { say } from '@heathstep/core';
import {
  createParamDecorator,
  Injectable,
  type CanActivate,
  type ExecutionContext,
  SetMetadata,
} from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request } from 'express';
import { Clock } from '../clock.js';
import { Db, type Actor } from '../persistence/db.js';
import { ProblemError } from '../http/problem.js';
import { hashToken } from './secrets.js';

export type Role = 'lead' | 'clinician' | 'assistant';

export interface SignedIn extends Actor {
  readonly kind: 'user';
  readonly userId: string;
  readonly name: string;
  readonly role: Role;
}

export interface AtHome extends Actor {
  readonly kind: 'home';
  readonly userId: null;
  readonly episodeId: string;
}

export const SESSION_COOKIE = 'heathstep_session';
export const HOME_COOKIE = 'heathstep_home';

type WithActor = Request & { actor?: SignedIn | AtHome };

/** One cookie of a request, when it has that one and it is text. */
export function cookie(request: Request, name: string): string | null {
  const value = (request.cookies as Record<string, unknown>)[name];
  return typeof value === 'string' ? value : null;
}

const ROLES = 'heathstep:roles';
const OPEN = 'heathstep:open';
const BEFORE_STEP = 'heathstep:before-step';

/** Only these roles; every signed-in role when left out. */
export const Roles = (...roles: Role[]): MethodDecorator & ClassDecorator => SetMetadata(ROLES, roles);

/** Open to who has no second step yet where the clinic asks everyone for one: what it takes to set it up. */
export const BeforeSecondStep = (): MethodDecorator & ClassDecorator => SetMetadata(BEFORE_STEP, true);

/** No sign-in, or a patient's home link instead of one. */
export const Open = (to: 'anyone' | 'home'): MethodDecorator & ClassDecorator => SetMetadata(OPEN, to);

export const Me = createParamDecorator(
  (_: unknown, context: ExecutionContext) => context.switchToHttp().getRequest<WithActor>().actor,
);

/** On every route: nothing is open unless it says so. */
@Injectable()
export class AuthGuard implements CanActivate {
  constructor(
    private readonly db: Db,
    private readonly reflector: Reflector,
    private readonly clock: Clock,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    const targets = [context.getHandler(), context.getClass()];
    const open = this.reflector.getAllAndOverride<'anyone' | 'home' | undefined>(OPEN, targets);
    if (open === 'anyone') return true;
    const request = context.switchToHttp().getRequest<WithActor>();
    if (open === 'home') request.actor = await this.home(request);
    else {
      const { actor, stepMissing } = await this.user(request);
      request.actor = actor;
      if (stepMissing && this.reflector.getAllAndOverride<boolean | undefined>(BEFORE_STEP, targets) !== true)
        throw new ProblemError(403, say('Set up the second step of signing in first'), {
          detail: say('Your clinic asks everyone for one'),
        });
    }
    const roles = this.reflector.getAllAndOverride<Role[] | undefined>(ROLES, targets);
    if (roles !== undefined && !(request.actor.kind === 'user' && roles.includes(request.actor.role))) {
      throw new ProblemError(403, say('This is not open to you'), {
        detail: say('Only {{list}} can do this', { list: roles.join(say(' or ')) }),
      });
    }
    return true;
  }

  private async user(request: WithActor): Promise<{ actor: SignedIn; stepMissing: boolean }> {
    const token = cookie(request, SESSION_COOKIE);
    const row =
      token !== null
        ? await this.db.lookUp<{
            user_id: string;
            clinic_id: string;
            name: string;
            role: Role;
            step_missing: boolean;
          }>('SELECT * FROM find_session($1, $2)', [hashToken(token), this.clock.now()])
        : null;
    if (row === null) throw new ProblemError(401, say('Sign in first'));
    const { user_id: userId, clinic_id: clinicId, name, role, step_missing: stepMissing } = row;
    return { actor: { kind: 'user', userId, clinicId, name, role }, stepMissing };
  }

  private async home(request: WithActor): Promise<AtHome> {
    const token = cookie(request, HOME_COOKIE);
    const row =
      token !== null
        ? await this.db.lookUp<{ episode_id: string; clinic_id: string }>(
            'SELECT * FROM find_home_session($1, $2)',
            [hashToken(token), this.clock.now()],
          )
        : null;
    if (row === null) throw new ProblemError(401, say('Open your link again'));
    return { kind: 'home', userId: null, clinicId: row.clinic_id, episodeId: row.episode_id };
  }
}
