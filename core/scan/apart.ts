/** Whether all three corners lie beyond the same end of −reach to reach. */
export function apart(a: number, b: number, c: number, reach: number): boolean {
  return (a > reach && b > reach && c > reach) || (a < -reach && b < -reach && c < -reach);
}
