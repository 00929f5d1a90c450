/** What was found about a scan, as sentences with the click that mends it. */
import type { ScanReport } from '#core/scan';
import { counted, spaced } from '#core/words';
import type { Mend } from '../workers/scan.worker';

export interface Fault {
  name: string;
  ok: boolean;
  sentence: string;
  /** Null where nothing is to be done, or nothing can be. */
  mend: Mend | null;
  /** On its button. */
  button: string;
  /** While it is done. */
  doing: string;
}

/** Vertices nearer than this are one when the scan is welded, body units: a two thousandth of its size. */
const WELD_NEAR = 1e-3;
/** Holes are filled whose rim is no longer than this, body units, until another length is typed. */
export const LONGEST_RIM = 1;

/** `real` says a length in body units as it is in the world. */
export function faultsOf(report: ScanReport, broken: number, real: (length: number) => string): Fault[] {
  const { components, loose, holes, nonManifold, inward, twins, triangles } = report;
  const apart = components > triangles / 4;
  return [
    {
      name: 'broken',
      ok: broken === 0,
      sentence:
        broken === 0
          ? 'Every vertex is a number'
          : `${counted(broken, 'face')} named a vertex that isn’t a number, and ${broken === 1 ? 'was' : 'were'} left out when the file was read.`,
      mend: null,
      button: '',
      doing: '',
    },
    {
      name: 'twins',
      ok: twins === 0 && !apart,
      sentence:
        twins > 0
          ? `${counted(twins, 'vertex lies', 'vertices lie')} where another one does.`
          : apart
            ? `Its ${spaced(triangles)} faces hang together in ${counted(components, 'piece')}: their edges meet, but aren’t joined.`
            : 'No two vertices lie at one place',
      mend: { kind: 'weld', near: WELD_NEAR },
      button: 'Weld them',
      doing: 'Welding',
    },
    {
      name: 'loose',
      ok: loose.components === 0,
      sentence:
        loose.components === 0
          ? components === 1
            ? 'It is one piece'
            : `It is in ${counted(components, 'piece')}, none of them small`
          : `${counted(loose.components, 'loose bit')} with ${counted(loose.triangles, 'face')} lie beside it.`,
      mend: { kind: 'loose' },
      button: loose.components === 1 ? 'Drop it' : 'Drop them',
      doing: 'Dropping loose bits',
    },
    {
      name: 'holes',
      ok: holes.count === 0,
      sentence:
        holes.count === 0
          ? 'It has no holes'
          : `${counted(holes.count, 'hole or open rim', 'holes or open rims')}, ${counted(holes.edges, 'edge')} round; the longest rim is ${real(holes.largest)}.`,
      mend: { kind: 'holes', longest: LONGEST_RIM },
      button: 'Fill the small ones',
      doing: 'Filling holes',
    },
    {
      name: 'inward',
      ok: inward === 0,
      sentence:
        inward === 0 ? 'All faces agree on what is outside' : `${counted(inward, 'face is', 'faces are')} inside out.`,
      mend: { kind: 'agree' },
      button: 'Turn them',
      doing: 'Turning faces',
    },
    {
      name: 'non-manifold',
      ok: nonManifold === 0,
      sentence:
        nonManifold === 0
          ? 'No edge is shared by three faces'
          : `${counted(nonManifold, 'edge is', 'edges are')} shared by three faces or more. It can be cast all the same.`,
      mend: null,
      button: '',
      doing: '',
    },
  ];
}
