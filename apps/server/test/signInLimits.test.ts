import { SignInLimits } from '../src/auth/signInLimits.js';

const names = (account: string, address: string) => ({
  accountHere: `${address} ${account}`,
  account,
  address,
});

describe('wrong tries to sign in', () => {
  let now = 0;
  let limits: SignInLimits;
  const wrong = (account: string, address: string, times = 1) => {
    for (let i = 0; i < times; i += 1) limits.wrong(names(account, address));
  };
  const wait = (account: string, address: string) => limits.waitSeconds(names(account, address));
  beforeEach(() => {
    now = 1_000_000;
    limits = new SignInLimits(() => now);
  });

  it('are free five times, then each doubles the wait, up to a quarter of an hour', () => {
    wrong('ada', 'here', 4);
    expect(wait('ada', 'here')).toBe(0);
    wrong('ada', 'here');
    expect(wait('ada', 'here')).toBe(1);
    wrong('ada', 'here', 3);
    expect(wait('ada', 'here')).toBe(8);
    wrong('ada', 'here', 30);
    expect(wait('ada', 'here')).toBe(900);
    now += 899_000;
    expect(wait('ada', 'here')).toBe(1);
    now += 1_000;
    expect(wait('ada', 'here')).toBe(0);
  });

  it('of one account do not hold up another from the same address, until the address has tried many', () => {
    wrong('ada', 'here', 6);
    expect(wait('bo', 'here')).toBe(0);
    for (let i = 0; i < 14; i += 1) wrong(`account ${i}`, 'here');
    expect(wait('bo', 'here')).toBe(1);
    expect(wait('bo', 'elsewhere')).toBe(0);
  });

  it('from many addresses slow one account down', () => {
    for (let i = 0; i < 12; i += 1) wrong('ada', `address ${i}`);
    expect(wait('ada', 'a new one')).toBe(4);
    // Where that account is signed in already, only what was tried there counts.
    const { accountHere, address } = names('ada', 'the desk');
    expect(limits.waitSeconds({ accountHere, address })).toBe(0);
  });

  it('are forgotten by the right password, and half an hour after the last', () => {
    wrong('ada', 'here', 8);
    limits.right(names('ada', 'here'));
    expect(wait('ada', 'here')).toBe(0);
    wrong('bo', 'here', 8);
    now += 30 * 60_000 + 1;
    expect(wait('bo', 'here')).toBe(0);
  });

  it('are kept of a bounded number of names', () => {
    for (let i = 0; i < 21_000; i += 1) wrong(`account ${i}`, `address ${i}`);
    wrong('ada', 'here', 6);
    expect(wait('ada', 'here')).toBe(2);
  });
});
