import { body, buildMesh } from '#core/mesh';
import { PatchSchema } from '#core/settings';
import { castPatchVector, ClosedPatchError } from './index';
import { farthest, mushroom, MUSHROOM_HEIGHT, stampedSheet } from './testMushroom';

const patch = (side: number, size = 512) =>
  PatchSchema.parse({
    id: '00000000-0000-4000-8000-000000000001',
    name: 'Patch',
    at: { x: 0, y: 0, z: 0 },
    normal: { x: 0, y: 0, z: 1 },
    detrend: { kind: 'none' },
    cast: { size, samples: 1, frame: { side } },
  });

// A coarse mesh has sharp creases where the form is round; the sheet's own edges cut those.
test.each([
  [60, 0.014],
  [240, 0.01],
])('a mushroom of %d² cells stamped on a sheet of 400² comes out as it was', async (cells, creases) => {
  const form = mushroom(cells);
  const { offsets, folded } = await castPatchVector(buildMesh(form, { ringless: true }), patch(2));
  expect(folded).toBe(0);
  const stamped = stampedSheet(offsets, 512, 400);
  expect(farthest(stamped, form, 16) / MUSHROOM_HEIGHT).toBeLessThan(0.01);
  expect(farthest(form, stamped, Math.ceil((cells * cells) / 6_000)) / MUSHROOM_HEIGHT).toBeLessThan(creases);
});

test('a body that closes inside the frame can’t be spread out, and says so', async () => {
  const ball = buildMesh(body('ball', 12), { ringless: true });
  await expect(castPatchVector(ball, patch(4, 64))).rejects.toThrow(ClosedPatchError);
});
