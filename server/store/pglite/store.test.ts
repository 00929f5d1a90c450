import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seededTemplate } from '../../testTemplate';
import { storeTests } from '../storeTests';
import { openPglite } from './open';

const folder = mkdtempSync(join(tmpdir(), 'mold-stamp-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

storeTests({
  name: 'the embedded database',
  open: async () => openPglite({ folder: join(folder, 'data'), template: await seededTemplate() }),
});
