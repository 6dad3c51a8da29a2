import { deviceWords } from './deviceWords.js';

describe('what a device says it is', () => {
  it.each([
    [
      'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 Chrome/140.0.0.0 Safari/537.36',
      'Chromium on Linux',
    ],
    [
      'Mozilla/5.0 (Windows NT 10.0) AppleWebKit/537.36 Chrome/140.0 Safari/537.36 Edg/140.0',
      'Edge on Windows',
    ],
    [
      'Mozilla/5.0 (iPad; CPU OS 18_0 like Mac OS X) AppleWebKit/605 Version/18.0 Safari/604.1',
      'Safari on an iPad',
    ],
    [
      'Mozilla/5.0 (Macintosh; Intel Mac OS X 10.15; rv:140.0) Gecko/20100101 Firefox/140.0',
      'Firefox on a Mac',
    ],
    ['curl/8', 'A device that does not say what it is'],
    ['', 'A device that does not say what it is'],
  ])('%s', (agent, words) => expect(deviceWords(agent)).toBe(words));
});
