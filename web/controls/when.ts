/** Times as they are shown: of today the hour, of this year the day as well. */
export function when(at: string | number, now = new Date()): string {
  const date = new Date(at);
  const hour = date.toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', hour12: false });
  if (date.toDateString() === now.toDateString()) return hour;
  const year = date.getFullYear() === now.getFullYear() ? undefined : ('numeric' as const);
  return `${date.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year })}, ${hour}`;
}
