/** Keeps paintings in the browser’s own store, away from the page: they are large. */
import * as Comlink from 'comlink';
import { PaintDrafts } from './paintDrafts';

const drafts = new PaintDrafts();

const api = {
  keep: drafts.keep.bind(drafts),
  read: drafts.read.bind(drafts),
  drop: drafts.drop.bind(drafts),
};

export type PaintDraftWorker = typeof api;
Comlink.expose(api);
