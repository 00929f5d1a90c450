import { gunzip, gzip } from './gzip';

test('bytes come back as they were; beyond the limit, cut or of another kind they are told', async () => {
  const bytes = Uint8Array.from({ length: 50_000 }, (_, i) => (i * i) % 251);
  const small = await gzip(bytes.buffer);
  expect(small.byteLength).toBeLessThan(bytes.length);
  expect(new Uint8Array(await gunzip(small, 50_000))).toEqual(bytes);
  await expect(gunzip(small, 49_999)).rejects.toThrow('more than the 49999');
  await expect(gunzip(small.slice(0, small.byteLength / 2), 50_000)).rejects.toThrow('broken');
  await expect(gunzip(bytes.buffer, 50_000)).rejects.toThrow('broken');
});
