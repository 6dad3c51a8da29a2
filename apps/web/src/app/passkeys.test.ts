import { passkeysHere } from './passkeys.js';

describe('passkeys', () => {
  const can = { PublicKeyCredential: {} };
  it.each([
    ['feet.example', can, true],
    ['localhost', can, true],
    ['127.0.0.1', can, false],
    ['[::1]', can, false],
    ['feet.example', {}, false],
  ])('at %s with %j: %s', (hostname, browser, here) => {
    expect(passkeysHere(hostname, browser)).toBe(here);
  });
});
