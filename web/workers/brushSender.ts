/**
 * What the sculpting worker needs of a brush: its settings, and the alphas, colours and parts that it works with, each
 * sent once and let go of when no brush needs it.
 */
import * as Comlink from 'comlink';
import { paints, type Brush } from '#core/settings';
import type { AlphaHead, BrushAlphas, PartHead } from '#core/stored';
import { getBlob } from '../api/client';
import { plain } from '../api/plain';
import { FormBytes } from './formBytes';
import type { SculptWorker } from './sculpt.worker';

export class BrushSender {
  private readonly forms = new FormBytes();
  /** Blobs of the colours that the worker has, by their alphas. */
  private readonly colours = new Map<string, string>();
  /** What the worker knows of each part that is set down. */
  private readonly parts = new Map<string, string>();

  constructor(private readonly worker: Comlink.Remote<SculptWorker>) {}

  /** Fetches at once what the brush needs; what it answers sends it, and fails where something can’t be had. */
  settings(brush: Brush, { form, tooth, parts }: BrushAlphas): () => Promise<void> {
    const sent = plain(brush);
    const heads = brush.touch.action === 'insert' ? parts.map((head) => plain(head)) : [];
    const wanted = [form, tooth]
      .filter((alpha) => alpha !== null)
      .map((alpha) => ({ alpha, bytes: this.forms.fetch(alpha) }));
    return async () => {
      const got = await Promise.allSettled(wanted.map(({ alpha, bytes }) => this.sendForm(alpha, bytes)));
      const gotColours = await Promise.allSettled([paints(brush) ? this.sendColours(form) : null]);
      const gotParts = await Promise.allSettled(heads.map((head) => this.sendPart(head)));
      await this.worker.setBrush(sent);
      const missing = [...got, ...gotColours, ...gotParts].find((g) => g.status === 'rejected');
      if (missing) throw missing.reason;
      await this.forget();
    };
  }

  /** As `settings`, of an alpha alone; again when it was cast anew. */
  alpha(alpha: AlphaHead): () => Promise<void> {
    const bytes = this.forms.fetch(alpha);
    return () => this.sendForm(alpha, bytes);
  }

  private async sendForm(alpha: AlphaHead, fetched: Promise<ArrayBuffer> | null): Promise<void> {
    const bytes = await this.forms.bytes(alpha, fetched);
    if (!bytes) return;
    await this.worker.sendForm(
      alpha.id,
      { format: alpha.format, size: alpha.size, relief: alpha.relief },
      Comlink.transfer(bytes, [bytes]),
    );
    this.forms.sent(alpha);
  }

  /** Colours that were cast beside an alpha’s heights. */
  private async sendColours(alpha: AlphaHead | null): Promise<void> {
    const colours = alpha?.lineage.colours;
    if (!alpha || !colours || this.colours.get(alpha.id) === colours.blob) return;
    const bytes = await getBlob(colours.blob);
    await this.worker.sendColours(alpha.id, colours.size, Comlink.transfer(bytes, [bytes]));
    this.colours.set(alpha.id, colours.blob);
  }

  private async sendPart(head: PartHead): Promise<void> {
    const { id, mesh, seat, card } = head;
    const key = `${mesh} ${JSON.stringify(seat)}`;
    if (this.parts.get(id) === key) return;
    const bytes = await getBlob(mesh);
    await this.worker.sendPart({ id, mesh, seat, card }, Comlink.transfer(bytes, [bytes]));
    this.parts.set(id, key);
  }

  /** Lets go of alphas that the worker's brushes no longer need. */
  private async forget(): Promise<void> {
    if (this.forms.tooMany()) this.forms.keep(await this.worker.keepForms(this.forms.newest()));
  }
}
