import { paintableBody } from '#core/mesh';
import { filledLayer } from '#core/paint';
import { textureInGlb } from './glbTexture';
import { writeMeshes } from './meshOut';
import { paintFile } from './paintFiles';

const { tiles } = filledLayer('a', 512, [0.2, 0.4, 0.1]);
const glb = async (withTexture: boolean): Promise<{ file: ArrayBuffer; png: Uint8Array }> => {
  const png = await paintFile('png8', { size: 512, tiles });
  const thing = { name: 'Plank', mesh: paintableBody('plank', 4), millimetres: 50, up: 'y' as const };
  return { file: (await writeMeshes('glb', [withTexture ? { ...thing, texture: png } : thing])).buffer, png };
};

test('the texture of a GLB comes out as it went in; a file without one has none', async () => {
  const { file, png } = await glb(true);
  expect(textureInGlb(file)).toEqual({ bytes: png, type: 'image/png' });
  expect(textureInGlb((await glb(false)).file)).toBeNull();
  expect(textureInGlb(new ArrayBuffer(9))).toBeNull();
});

test('one that is named and isn’t there says so, wherever the file breaks off', async () => {
  const { file } = await glb(true);
  const cut = file.slice(0, file.byteLength - 2000);
  expect(textureInGlb(cut)).toContain('isn’t in it');
  const text = new TextDecoder('latin1').decode(file);
  const broken = Uint8Array.from(text.replace('"images":[{', '"imagez":[{'), (c) => c.charCodeAt(0));
  expect(textureInGlb(broken.buffer)).toContain('isn’t in it');
  for (let at = 0; at < file.byteLength; at += 611) expect(() => textureInGlb(file.slice(0, at))).not.toThrow();
});
