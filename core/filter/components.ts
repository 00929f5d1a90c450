/**
 * Connected areas, eight neighbours each, in two scans with a union of equal labels (Rosenfeld and Pfaltz, 1966).
 */
export interface Components {
  /** 0 outside, 1 … count inside. */
  labels: Int32Array;
  count: number;
  /** Pixels of each, by label; the first entry is what lies outside. */
  areas: Int32Array;
}

export function components(inside: Uint8Array, width: number, height: number): Components {
  const labels = new Int32Array(width * height);
  // Every label is followed by its parent; no picture has more than a label for every fourth pixel and a row.
  const parent = new Int32Array(((width + 1) >> 1) * ((height + 1) >> 1) + 2);
  let next = 1;
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const at = j * width + i;
      if (inside[at] === 0) continue;
      const left = i > 0 ? labels[at - 1] : 0;
      const up = j > 0 ? labels[at - width] : 0;
      // What lies above touches all the others; without it, left or upper left may meet the upper right.
      if (up !== 0) {
        labels[at] = up;
        continue;
      }
      const before = left !== 0 ? left : j > 0 && i > 0 ? labels[at - width - 1] : 0;
      const after = j > 0 && i < width - 1 ? labels[at - width + 1] : 0;
      if (before !== 0 && after !== 0) labels[at] = before === after ? before : union(parent, before, after);
      else if (before !== 0 || after !== 0) labels[at] = before + after;
      else {
        parent[next] = next;
        labels[at] = next++;
      }
    }
  }
  const names = new Int32Array(next);
  let count = 0;
  for (let l = 1; l < next; l++) names[l] = parent[l] === l ? ++count : names[root(parent, l)];
  const areas = new Int32Array(count + 1);
  for (let i = 0; i < labels.length; i++) {
    const label = names[labels[i]];
    labels[i] = label;
    areas[label]++;
  }
  return { labels, count, areas };
}

function root(parent: Int32Array, label: number): number {
  let at = label;
  while (parent[at] !== at) {
    parent[at] = parent[parent[at]];
    at = parent[at];
  }
  return at;
}

/** The lower root becomes the parent, so that names are given in one pass. */
function union(parent: Int32Array, a: number, b: number): number {
  const x = root(parent, a);
  const y = root(parent, b);
  const low = x < y ? x : y;
  parent[x < y ? y : x] = low;
  return low;
}
