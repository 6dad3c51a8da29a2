import express from 'express';
import type { AddressInfo } from 'node:net';
import request from 'supertest';
import { Metrics } from '../src/health/metrics.js';

describe('how the server is, in the open text format', () => {
  it('tells answers by route and status, never by whom, and whether the database is there', async () => {
    let there = true;
    const metrics = new Metrics(() => Promise.resolve(there));
    const app = express();
    app.use('/api', metrics.count);
    app.get('/api/people/:id', (_, response) => void response.json({ name: 'Bram Ostler' }));
    await request(app).get('/api/people/0a1b2c3d?q=Bram').expect(200);
    await request(app).get('/api/people/0a1b2c3d').expect(200);
    await request(app).get('/api/secret-word').expect(404);
    const server = await metrics.listen(0);
    try {
      const at = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
      const told = async (): Promise<string> => (await request(at).get('/metrics').expect(200)).text;
      const text = await told();
      expect(text).toMatch(
        /heathstep_answer_seconds_count\{method="GET",route="\/api\/people\/:id",status="200"\} 2/,
      );
      expect(text).toMatch(/heathstep_answer_seconds_count\{method="GET",route="other",status="404"\} 1/);
      expect(text).not.toMatch(/0a1b2c3d|Bram|secret-word/);
      expect(text).toContain('heathstep_database_up 1');
      there = false;
      expect(await told()).toContain('heathstep_database_up 0');
      await request(at).get('/').expect(404);
      await request(at).post('/metrics').expect(404);
    } finally {
      server.close();
    }
  });
});
