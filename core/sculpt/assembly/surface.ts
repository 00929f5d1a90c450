// Where each array of a surface lies, read from its header; the order is that of core/sculpt/surface.ts.

@inline function field(s: usize, i: usize): usize { return <usize>load<u32>(s + (i << 2)); }
@inline export function positionsOf(s: usize): usize { return field(s, 0); }
@inline export function normalsOf(s: usize): usize { return field(s, 1); }
@inline export function maskOf(s: usize): usize { return field(s, 2); }
@inline export function trianglesOf(s: usize): usize { return field(s, 3); }
@inline export function ringStartsOf(s: usize): usize { return field(s, 4); }
@inline export function ringsOf(s: usize): usize { return field(s, 5); }
@inline export function leafTrianglesOf(s: usize): usize { return field(s, 6); }
@inline export function strayStartsOf(s: usize): usize { return field(s, 7); }
@inline export function straysOf(s: usize): usize { return field(s, 8); }
@inline export function boxesOf(s: usize): usize { return field(s, 9); }
@inline export function touchedOf(s: usize): usize { return field(s, 10); }
@inline export function uOf(s: usize): usize { return field(s, 11); }
@inline export function vOf(s: usize): usize { return field(s, 12); }
@inline export function amountOf(s: usize): usize { return field(s, 13); }
@inline export function listOf(s: usize): usize { return field(s, 14); }
@inline export function vertexMarkOf(s: usize): usize { return field(s, 15); }
@inline export function leafMarkOf(s: usize): usize { return field(s, 16); }
@inline export function leavesOf(s: usize): usize { return field(s, 17); }
@inline export function nodesOf(s: usize): usize { return field(s, 18); }
@inline export function changedOf(s: usize): usize { return field(s, 19); }
@inline export function isChangedOf(s: usize): usize { return field(s, 20); }
@inline export function copyAtOf(s: usize): usize { return field(s, 21); }
@inline export function copyLeavesOf(s: usize): usize { return field(s, 22); }
@inline export function copyRecordsOf(s: usize): usize { return field(s, 23); }
@inline export function scratchOf(s: usize): usize { return field(s, 24); }
@inline export function vertexCountOf(s: usize): u32 { return <u32>field(s, 25); }
@inline export function leafCountOf(s: usize): u32 { return <u32>field(s, 26); }
@inline export function leafBaseOf(s: usize): u32 { return <u32>field(s, 27); }

export const LEAF: u32 = 256;
export const LEAF_SHIFT: u32 = 8;
// Bytes into a leaf's copy: places, strongest, mask, normals, box.
export const COPY_STRONGEST: usize = 256 * 3 * 4;
export const COPY_MASK: usize = 256 * 4 * 4;
export const COPY_NORMALS: usize = 256 * 5 * 4;
export const COPY_BOX: usize = 256 * 8 * 4;
export const RING_BREAK: u32 = 0x80000000;
export const RING_VERTEX: u32 = 0x7fffffff;

@inline export function f(at: usize): f64 { return <f64>load<f32>(at); }
@inline export function put(at: usize, x: f64): void { store<f32>(at, <f32>x); }
