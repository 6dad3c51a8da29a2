import type { PasskeyChallenge, PasskeyView, SessionView } from '@heathstep/contracts';
import { request } from '../api/client.js';

const NUMBER = /^(\d{1,3}(\.\d{1,3}){3}|\[.*\])$/;

/** Whether this browser can, at this address: a passkey belongs to an address with a name. */
export const passkeysHere = (hostname: string, browser: object): boolean =>
  'PublicKeyCredential' in browser && !NUMBER.test(hostname);

/** Adds this device, or the one the browser offers, by the password. */
export async function addPasskey(current: string, name: string): Promise<readonly PasskeyView[]> {
  const { startRegistration } = await import('@simplewebauthn/browser');
  const { options } = await request<PasskeyChallenge>('POST', '/api/session/passkeys/options', { current });
  const response = await startRegistration({
    optionsJSON: options as unknown as Parameters<typeof startRegistration>[0]['optionsJSON'],
  });
  return request('POST', '/api/session/passkeys', { name, response });
}

/** Signs in by a device that was added. */
export async function signInByPasskey(): Promise<SessionView> {
  const { startAuthentication } = await import('@simplewebauthn/browser');
  const { id, options } = await request<PasskeyChallenge>('POST', '/api/session/passkey/options', {});
  const response = await startAuthentication({
    optionsJSON: options as unknown as Parameters<typeof startAuthentication>[0]['optionsJSON'],
  });
  return request('POST', '/api/session/passkey', { id, response });
}
