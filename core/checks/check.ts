/** What was measured, the limit, and what to say about it. */
export const CHECK_NAMES = [
  'margin',
  'ring-loss',
  'undercut',
  'used-range',
  'ground',
  'lift',
  'off-clay',
  'filled',
  'dirt',
  'specks',
  'banding',
  'resolution',
  'seam',
  'disc',
  'rim-step',
  'ripple',
  'detail',
  'weight',
  'open',
  'non-manifold',
  'inward',
  'crossing',
  'resting',
  'off-axis',
  'thin',
] as const;

export interface Check {
  name: (typeof CHECK_NAMES)[number];
  ok: boolean;
  value: number;
  limit: number;
  unit: string;
  sentence: string;
}
