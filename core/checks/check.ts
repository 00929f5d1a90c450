/** What was measured, the limit, and what to say about it. */
export interface Check {
  name: 'margin' | 'ring-loss';
  ok: boolean;
  value: number;
  limit: number;
  unit: string;
  sentence: string;
}
