/** A piece as it goes into a file: where it stands on the body, with its name and its colour. */
import { packMesh } from '#core/formats';
import type { RawMesh } from '#core/mesh';
import { stood } from '#core/part';
import { pieceMesh, type Piece } from '#core/scene';
import type { PackedOut } from '../workers/meshOut.worker';
import { usePreferences } from '../stores/preferences';

export function writtenPiece(piece: Piece, part: RawMesh): PackedOut {
  const mesh = packMesh(pieceMesh(piece, stood(part, piece.seat)));
  return {
    name: piece.name,
    mesh,
    millimetres: usePreferences().millimetres(),
    up: 'y',
    colour: coloursOf(piece.colour),
  };
}

/** “#rrggbb” as red, green and blue, 0–1. */
function coloursOf(hex: string | null): readonly [number, number, number] | undefined {
  if (!hex) return undefined;
  const of = (from: number): number => parseInt(hex.slice(from, from + 2), 16) / 255;
  return [of(1), of(3), of(5)];
}
