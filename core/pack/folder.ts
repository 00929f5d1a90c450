/**
 * A pack, or some brushes, as plain folders that any program can use: for each brush its picture, its alphas, its
 * parts, its settings as JSON, and a card to be read. What lies where is planned here; who writes it fetches the rest.
 */
import type { Brush, Pack } from '#core/settings';
import { fileNameOf, Names } from './fileNames';

export interface FolderBrush {
  doc: Brush;
  alphas: readonly FolderAlpha[];
  parts: readonly { id: string; name: string }[];
}

export interface FolderAlpha {
  id: string;
  name: string;
  /** What reads it: the brush’s form or its tooth. */
  use: 'Form' | 'Tooth';
  vector: boolean;
  coloured: boolean;
}

export interface FolderPack {
  name: string;
  /** What the pack says of itself; null of brushes that are in none. */
  about: Pick<Pack, 'card' | 'site' | 'licence'> | null;
  groups: readonly { name: string; brushes: readonly FolderBrush[] }[];
}

export type FolderContent =
  | { kind: 'text'; text: string }
  | { kind: 'picture'; brush: string }
  | { kind: 'alpha'; id: string; ending: 'png' | 'exr' | 'colours' }
  | { kind: 'part'; id: string };

export interface FolderEntry {
  /** From the uppermost folder, with “/” between. */
  path: string;
  content: FolderContent;
}

export function packFolder({ name, about, groups }: FolderPack): FolderEntry[] {
  const root = fileNameOf(name, 'Pack');
  const out: FolderEntry[] = [];
  const within = new Names();
  const aboutPath = `${root}/${within.free('About', '.txt')}`;
  const index: string[] = [];
  const grouped = groups.filter(({ brushes }) => brushes.length > 0);
  for (const group of grouped) {
    const named = grouped.length > 1 && group.name !== '';
    const folder = named ? `${root}/${within.free(fileNameOf(group.name, 'Group'))}` : root;
    const names = named ? new Names() : within;
    if (named) index.push('', group.name);
    for (const brush of group.brushes) {
      const own = names.free(fileNameOf(brush.doc.card.name, 'Brush'));
      index.push(`- ${brush.doc.card.name}`);
      out.push(...brushFolder(brush, `${folder}/${own}`, about));
    }
  }
  return [{ path: aboutPath, content: { kind: 'text', text: aboutText(name, about, index) } }, ...out];
}

function brushFolder({ doc, alphas, parts }: FolderBrush, folder: string, about: FolderPack['about']): FolderEntry[] {
  const names = new Names();
  const at = (stem: string, ending: string): string => `${folder}/${names.free(stem, ending)}`;
  const out: FolderEntry[] = [
    { path: at('Card', '.txt'), content: { kind: 'text', text: cardText(doc, about) } },
    { path: at('Settings', '.json'), content: { kind: 'text', text: `${JSON.stringify(doc, null, 2)}\n` } },
    { path: at('Picture', '.png'), content: { kind: 'picture', brush: doc.id } },
  ];
  for (const { id, name, use, vector, coloured } of alphas) {
    const stem = `${use}, ${fileNameOf(name, 'alpha')}`;
    const ending = vector ? 'exr' : 'png';
    out.push({ path: at(stem, `.${ending}`), content: { kind: 'alpha', id, ending } });
    if (coloured) out.push({ path: at(`${stem}, colours`, '.png'), content: { kind: 'alpha', id, ending: 'colours' } });
  }
  for (const { id, name } of parts)
    out.push({ path: at(`Part, ${fileNameOf(name, 'part')}`, '.glb'), content: { kind: 'part', id } });
  return out;
}

/** Lines that have something to say. */
function lines(all: readonly (readonly [label: string, value: string])[]): string[] {
  return all.filter(([, value]) => value.trim() !== '').map(([label, value]) => `${label}: ${value.trim()}`);
}

function aboutText(name: string, about: FolderPack['about'], index: readonly string[]): string {
  const said = about
    ? lines([
        ['Maker', about.card.author],
        ['Site', about.site],
        ['Licence', about.licence],
        ['Tags', about.card.tags.join(', ')],
      ])
    : [];
  const notes = about?.card.notes.trim();
  return `${[name, ...said, ...(notes ? ['', notes] : []), '', ...index].join('\n').replace(/\n{3,}/g, '\n\n')}\n`;
}

function cardText({ card, touch, stroke }: Brush, about: FolderPack['about']): string {
  const said = lines([
    ['Maker', card.author || (about?.card.author ?? '')],
    ['Pack', about?.card.name ?? ''],
    ['Licence', about?.licence ?? ''],
    ['Tags', card.tags.join(', ')],
    ['Action', touch.action],
    ['Stroke', stroke.type],
    ['Radius', `${stroke.size} body units; the plain ball has a radius of 1`],
    ['Spacing', `${stroke.spacing} % of a dab’s diameter`],
  ]);
  const notes = card.notes.trim();
  return `${[card.name, ...said, ...(notes ? ['', notes] : [])].join('\n')}\n`;
}
