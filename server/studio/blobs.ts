/** Where stored bytes come from, by their name. */
export type Blobs = (hash: string) => Promise<Uint8Array>;
