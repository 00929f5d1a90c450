/**
 * What the compiled module of core/paint/assembly exports: addresses, counts and modes are 32-bit whole numbers, the
 * rest float32.
 */
export interface TexelLoops {
  gather(
    count: number,
    places: number,
    frame: number,
    table: number,
    steps: number,
    square: boolean,
    index: number,
    u: number,
    v: number,
    amount: number,
    four: number,
  ): number;
  strongest(count: number, amount: number): number;
  readFlat(
    count: number,
    u: number,
    v: number,
    amount: number,
    picture: number,
    width: number,
    height: number,
    map: number,
    repeats: boolean,
    gain: number,
    base: number,
  ): void;
  apply(
    count: number,
    texels: number,
    index: number,
    amount: number,
    rim: number,
    own: number,
    layer: number,
    words: number,
    was: number,
    pigment: number,
    colour: number,
    pooling: number,
    flow: number,
    even: boolean,
    opacity: number,
    mode: number,
  ): void;
  takeUp(
    count: number,
    texels: number,
    index: number,
    u: number,
    v: number,
    words: number,
    side: number,
    taken: number,
    weights: number,
  ): void;
  settle(cells: number, taken: number, weights: number, before: number, kept: number): void;
  smear(
    count: number,
    texels: number,
    index: number,
    u: number,
    v: number,
    amount: number,
    strength: number,
    side: number,
    cells: number,
    words: number,
    locked: boolean,
    pigment: number,
  ): void;
  over(
    out: number,
    words: number,
    hidden: number,
    base: number,
    opacity: number,
    clipped: boolean,
    mode: number,
    shown: number,
    shownSteps: number,
    light: number,
    lightSteps: number,
  ): void;
  overAll(out: number, to: number, words: number, shares: number, count: number): void;
  toWords(out: number, words: number): void;
  toBytes(out: number, bytes: number, shown: number, steps: number): void;
}
