/** Files of a drop, those inside dropped folders among them. */

const SOURCES = /\.(png|jpe?g|webp|tiff?|exr|svg|obj|ply|stl|glb)$/i;
const MOST_FILES = 2000;

export async function droppedFiles(data: DataTransfer | null): Promise<File[]> {
  if (!data) return [];
  // Entries are asked for at once: the list of items is empty after the first wait.
  const entries = [...data.items].map((item) => item.webkitGetAsEntry?.() ?? null);
  if (!entries.some((e) => e?.isDirectory)) return [...data.files];
  const out: File[] = [];
  for (const entry of entries) if (entry) await walk(entry, out, false);
  return out;
}

/** The name of the folder that was dropped; empty where it is none, or several. */
export function folderOf(data: DataTransfer | null): string {
  const entries = [...(data?.items ?? [])].flatMap((item) => item.webkitGetAsEntry?.() ?? []);
  return entries.length === 1 && entries[0].isDirectory ? entries[0].name : '';
}

/** Of a folder that was chosen: its pictures and scans alone. */
export function sourcesIn(files: Iterable<File>): File[] {
  return [...files].filter((file) => SOURCES.test(file.name)).slice(0, MOST_FILES);
}

async function walk(entry: FileSystemEntry, out: File[], inside: boolean): Promise<void> {
  if (out.length >= MOST_FILES) return;
  if (entry.isFile) {
    // What else lies in a folder is none of ours; a single file that was dropped is told what is wrong with it.
    if (inside && !SOURCES.test(entry.name)) return;
    out.push(await new Promise<File>((done, fail) => (entry as FileSystemFileEntry).file(done, fail)));
    return;
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  for (;;) {
    const some = await new Promise<FileSystemEntry[]>((done, fail) => reader.readEntries(done, fail));
    if (some.length === 0) return;
    for (const next of some) await walk(next, out, true);
  }
}
