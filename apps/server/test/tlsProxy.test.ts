import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import {
  request as plainRequest,
  createServer as createPlain,
  type RequestListener,
  type Server,
} from 'node:http';
import { createServer, request as tlsRequest } from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { makeWorld, PASSWORD, type World } from './harness.js';

/** A key and a certificate of its own, as a proxy in front of a clinic would have. */
function certificate(): { key: Buffer; cert: Buffer } {
  const folder = mkdtempSync(join(tmpdir(), 'heathstep-tls-'));
  const [key, cert] = [join(folder, 'key.pem'), join(folder, 'cert.pem')];
  execFileSync(
    'openssl',
    [
      'req',
      '-x509',
      '-newkey',
      'rsa:2048',
      '-nodes',
      '-days',
      '2',
      '-subj',
      '/CN=localhost',
      '-keyout',
      key,
      '-out',
      cert,
    ],
    { stdio: 'ignore' },
  );
  const read = { key: readFileSync(key), cert: readFileSync(cert) };
  rmSync(folder, { recursive: true });
  return read;
}

const portOf = (server: { address: () => unknown }): number => (server.address() as AddressInfo).port;

interface Answer {
  readonly status: number;
  readonly headers: Readonly<Record<string, string | string[] | undefined>>;
  readonly body: string;
}

describe('behind a proxy that speaks TLS', () => {
  let world: World;
  let behind: Server;
  let proxy: ReturnType<typeof createServer>;
  let site: string;

  beforeAll(async () => {
    let target = 0;
    proxy = createServer(certificate(), (from, to) => {
      const onward = plainRequest(
        {
          host: '127.0.0.1',
          port: target,
          method: from.method,
          path: from.url,
          headers: {
            ...from.headers,
            'x-forwarded-proto': 'https',
            'x-forwarded-for': from.socket.remoteAddress ?? '',
          },
        },
        (answer) => {
          to.writeHead(answer.statusCode ?? 502, answer.headers);
          answer.pipe(to);
        },
      );
      from.pipe(onward);
    });
    proxy.listen(0, '127.0.0.1');
    await once(proxy, 'listening');
    site = `https://localhost:${portOf(proxy)}`;
    world = await makeWorld(null, site);
    behind = createPlain(world.app.getHttpAdapter().getInstance() as RequestListener);
    behind.listen(0, '127.0.0.1');
    await once(behind, 'listening');
    target = portOf(behind);
  });
  afterAll(async () => {
    proxy.close();
    behind.close();
    await world.stop();
  });

  const ask = (method: string, path: string, body?: object, headers: Record<string, string> = {}) =>
    new Promise<Answer>((resolve, reject) => {
      const asked = tlsRequest(
        `${site}${path}`,
        {
          method,
          rejectUnauthorized: false,
          agent: false,
          headers: {
            'content-type': 'application/json',
            origin: site,
            'sec-fetch-site': 'same-origin',
            ...headers,
          },
        },
        (answer) => {
          let text = '';
          answer.on('data', (data) => (text += String(data)));
          answer.on('end', () =>
            resolve({ status: answer.statusCode ?? 0, headers: answer.headers, body: text }),
          );
        },
      );
      asked.on('error', reject);
      asked.end(body === undefined ? undefined : JSON.stringify(body));
    });

  it('signs in with a cookie for https only, changes and reads; a page of another site does not', async () => {
    const signedIn = await ask('POST', '/api/session', {
      email: 'clinician0@clinic.example',
      password: PASSWORD,
    });
    expect(signedIn.status).toBe(200);
    const [cookie] = (signedIn.headers['set-cookie'] as string[] | undefined) ?? [];
    expect(cookie).toMatch(/; Secure/);
    expect(signedIn.headers['strict-transport-security']).toMatch(/^max-age=/);
    const mine = { cookie: (cookie ?? '').split(';')[0] ?? '' };
    const person = { id: randomUUID(), name: 'Behind Glass', birthDate: null, occupation: '' };
    expect((await ask('POST', '/api/people', person, mine)).status).toBe(201);
    expect(JSON.parse((await ask('GET', `/api/people/${person.id}`, undefined, mine)).body)).toMatchObject({
      name: 'Behind Glass',
    });
    for (const origin of [site.replace('https', 'http'), 'https://elsewhere.example'])
      expect(
        (await ask('POST', '/api/people', { ...person, id: randomUUID() }, { ...mine, origin })).status,
      ).toBe(403);
  });
});
