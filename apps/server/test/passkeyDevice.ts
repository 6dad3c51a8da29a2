import { createHash, generateKeyPairSync, type KeyObject, randomBytes, sign } from 'node:crypto';

const sha256 = (data: string | Buffer): Buffer => createHash('sha256').update(data).digest();
const base64 = (data: Buffer | string): string => Buffer.from(data).toString('base64url');

const length = (n: number): Buffer =>
  n < 256 ? Buffer.from([0x58, n]) : Buffer.from([0x59, n >> 8, n & 255]);
const text = (t: string): Buffer => Buffer.concat([Buffer.from([0x60 + t.length]), Buffer.from(t)]);

interface Asked {
  readonly challenge: string;
}

/** What a browser and a device with a fingerprint do, by the published rules and by hand: nothing of the library that checks it. */
export class Device {
  private readonly key: KeyObject;
  private readonly publicKey: { readonly x: Buffer; readonly y: Buffer };
  private readonly id = randomBytes(16);
  private counter = 0;

  constructor(
    private readonly origin: string,
    /** Whether it makes sure of its owner. */
    private readonly knows = true,
  ) {
    const { privateKey, publicKey } = generateKeyPairSync('ec', { namedCurve: 'P-256' });
    const { x = '', y = '' } = publicKey.export({ format: 'jwk' });
    this.key = privateKey;
    this.publicKey = { x: Buffer.from(x, 'base64url'), y: Buffer.from(y, 'base64url') };
  }

  private said(type: string, { challenge }: Asked): string {
    return JSON.stringify({ type, challenge, origin: this.origin, crossOrigin: false });
  }

  private data(flags: number, more: Buffer = Buffer.alloc(0)): Buffer {
    this.counter += 1;
    const count = Buffer.alloc(4);
    count.writeUInt32BE(this.counter);
    const owner = this.knows ? 0x05 : 0x01;
    return Buffer.concat([sha256(new URL(this.origin).hostname), Buffer.from([flags | owner]), count, more]);
  }

  /** The answer to a challenge to be added. */
  added(asked: Asked): object {
    const { x, y } = this.publicKey;
    const key = Buffer.concat([
      Buffer.from([0xa5, 0x01, 0x02, 0x03, 0x26, 0x20, 0x01, 0x21, 0x58, 0x20]),
      x,
      Buffer.from([0x22, 0x58, 0x20]),
      y,
    ]);
    const credential = Buffer.concat([Buffer.alloc(16), Buffer.from([0, this.id.length]), this.id, key]);
    const data = this.data(0x40, credential);
    const attestation = Buffer.concat([
      Buffer.from([0xa3]),
      text('fmt'),
      text('none'),
      text('attStmt'),
      Buffer.from([0xa0]),
      text('authData'),
      length(data.length),
      data,
    ]);
    return this.answer({
      clientDataJSON: base64(this.said('webauthn.create', asked)),
      attestationObject: base64(attestation),
      transports: ['internal'],
    });
  }

  /** The answer to a challenge to sign in. */
  signed(asked: Asked, change: (data: Buffer) => Buffer = (d) => d): object {
    const said = this.said('webauthn.get', asked);
    const data = this.data(0);
    return this.answer({
      clientDataJSON: base64(said),
      authenticatorData: base64(change(data)),
      signature: base64(sign('sha256', Buffer.concat([data, sha256(said)]), this.key)),
    });
  }

  private answer(response: object): object {
    return {
      id: base64(this.id),
      rawId: base64(this.id),
      type: 'public-key',
      clientExtensionResults: {},
      response,
    };
  }
}
