/** Names that every file system takes, and no two of one folder alike. */

const LONGEST = 64;
/** Names that one system or another keeps to itself. */
const RESERVED = /^(con|prn|aux|nul|com\d|lpt\d)(\..*)?$/i;

/** A name that every file system takes. */
export function fileNameOf(name: string, otherwise: string): string {
  const plain = name
    .normalize('NFC')
    .replace(/[\u0000-\u001f\u007f<>:"/\\|?*]/g, ' ')
    .replace(/\s+/g, ' ')
    .slice(0, LONGEST)
    .replace(/^[. ]+|[. ]+$/g, '');
  if (plain === '') return otherwise;
  return RESERVED.test(plain) ? `${plain}_` : plain;
}

/** Names of one folder, no two alike, capitals or not. */
export class Names {
  private readonly used = new Set<string>();

  free(stem: string, ending = ''): string {
    for (let n = 1; ; n++) {
      const name = `${stem}${n === 1 ? '' : ` ${n}`}${ending}`;
      if (this.used.has(name.toLowerCase())) continue;
      this.used.add(name.toLowerCase());
      return name;
    }
  }
}
