/** Finding things by what is typed, and the order they are shown in. */
import type { Card } from '#core/settings';

export const ORDERS = [
  { value: 'hand', label: 'As ordered' },
  { value: 'name', label: 'By name' },
  { value: 'newest', label: 'Newest first' },
] as const;
export type Order = (typeof ORDERS)[number]['value'];

export function wordsOf(typed: string): string[] {
  return typed.trim().toLowerCase().split(/\s+/).filter(Boolean);
}

/** Every word stands somewhere in the text, which is in small letters. */
export function holds(text: string, words: readonly string[]): boolean {
  return words.every((word) => text.includes(word));
}

export interface Found {
  card: Pick<Card, 'name' | 'author' | 'tags'>;
  updatedAt: string;
}

export function textOfCard({ name, author, tags }: Found['card']): string {
  return `${name} ${author} ${tags.join(' ')}`.toLowerCase();
}

/** A copy in order; what was never saved is the newest. */
export function inOrder<T>(all: readonly T[], order: Order, of: (one: T) => { name: string; at: string | null }): T[] {
  if (order === 'hand') return [...all];
  const known = all.map((one) => ({ one, ...of(one) }));
  const compare =
    order === 'name'
      ? (a: { name: string }, b: { name: string }): number => a.name.localeCompare(b.name)
      : (a: { at: string | null }, b: { at: string | null }): number => (b.at ?? '~').localeCompare(a.at ?? '~');
  return known.sort(compare).map(({ one }) => one);
}
