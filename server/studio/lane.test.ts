import { Problem } from '../problem';
import type { Job } from './jobs';
import { Lane } from './lane';

const job: Extract<Job, { kind: 'font' }> = { kind: 'font', hash: '0'.repeat(64), name: 'a.ttf' };
const limits = { seconds: 10, megabytes: 900, refusal: new Problem(422, 'font', 'It takes too long.') };

test('closed, it answers whoever waits and whoever asks later: the server closes when all are answered', async () => {
  const lane = new Lane('nowhere');
  const pending = [lane.run(job, limits), lane.run(job, limits)];
  lane.close();
  pending.push(lane.run(job, limits));
  for (const answer of pending) await expect(answer).rejects.toThrow('The server is closing');
  expect(lane.length).toBe(0);
});
