/**
 * The colour texture inside a GLB file, as its own bytes: the first material’s that has one. Source: glTF 2.0, "GLB
 * File Format Specification".
 */

const MAGIC = 0x46546c67;
const JSON_CHUNK = 0x4e4f534a;

interface Gltf {
  materials?: { pbrMetallicRoughness?: { baseColorTexture?: { index?: number } } }[];
  textures?: { source?: number }[];
  images?: { bufferView?: number; mimeType?: string; uri?: string }[];
  bufferViews?: { byteOffset?: number; byteLength?: number }[];
}

/**
 * Null where the file has none; a sentence where it names one that isn’t in it, or that can’t be one.
 */
export function textureInGlb(bytes: ArrayBuffer): { bytes: Uint8Array<ArrayBuffer>; type: string } | string | null {
  const view = new DataView(bytes);
  if (bytes.byteLength < 20 || view.getUint32(0, true) !== MAGIC || view.getUint32(16, true) !== JSON_CHUNK)
    return null;
  const length = view.getUint32(12, true);
  let gltf: Gltf;
  try {
    gltf = JSON.parse(new TextDecoder().decode(new Uint8Array(bytes, 20, length))) as Gltf;
  } catch {
    return null;
  }
  const named = gltf.materials?.map((m) => m?.pbrMetallicRoughness?.baseColorTexture?.index).find(Number.isInteger);
  if (named === undefined) return null;
  const missing = 'The file names a texture that isn’t in it. Open the texture’s own file to go on with it.';
  const image = gltf.images?.[gltf.textures?.[named]?.source ?? -1];
  const where = gltf.bufferViews?.[image?.bufferView ?? -1];
  if (!image || !where) return missing;
  const from = 20 + length + 8 + (where.byteOffset ?? 0);
  const count = where.byteLength ?? 0;
  if (!(count > 0) || !(from + count <= bytes.byteLength)) return missing;
  return { bytes: new Uint8Array(bytes.slice(from, from + count)), type: image.mimeType ?? 'image/png' };
}
