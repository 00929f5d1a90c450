/**
 * A pack as one page to look at without the product: pictures, cards, and the pack file inside it, to be saved from
 * it. What comes before the pack file’s bytes, as base64, and what comes after them.
 */
import { LICENCES } from '#core/settings';
import { fileNameOf } from './fileNames';

export interface SharedBrush {
  name: string;
  /** What it does, in a few words. */
  does: string;
  notes: string;
  /** PNG as base64. */
  picture: string;
}

export interface SharedPack {
  name: string;
  maker: string;
  /** A web address. */
  site: string;
  licence: string;
  notes: string;
  groups: readonly { name: string; brushes: readonly SharedBrush[] }[];
}

const ESCAPED: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' };
const text = (value: string): string => value.replace(/[&<>"']/g, (one) => ESCAPED[one]);

/** A link only where it leads to the web: another kind of address could run something. */
function siteOf(site: string): string {
  if (site.trim() === '') return '';
  return /^https?:\/\/[^\s]+$/i.test(site.trim())
    ? `<a href="${text(site.trim())}" rel="noopener noreferrer">${text(site.trim())}</a>`
    : text(site.trim());
}

function facts(pack: SharedPack): string {
  const licence = LICENCES.find(({ value }) => value === pack.licence)?.label ?? pack.licence;
  return [text(pack.maker), siteOf(pack.site), text(licence)].filter((one) => one !== '').join(' · ');
}

const card = ({ name, does, notes, picture }: SharedBrush): string =>
  `<figure><img src="data:image/png;base64,${picture}" alt="" loading="lazy"><figcaption><b>${text(name)}</b><span>${text(does)}</span>${
    notes ? `<p>${text(notes)}</p>` : ''
  }</figcaption></figure>`;

export function sharePage(pack: SharedPack): { before: string; after: string } {
  const count = pack.groups.reduce((sum, { brushes }) => sum + brushes.length, 0);
  const file = `${fileNameOf(pack.name, 'Pack')}.pack.zip`;
  const groups = pack.groups.filter(({ brushes }) => brushes.length > 0);
  const body = groups
    .map(
      ({ name, brushes }) =>
        `${groups.length > 1 && name ? `<h2>${text(name)}</h2>` : ''}<section>${brushes.map(card).join('')}</section>`,
    )
    .join('\n');
  return {
    before: `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<meta name="referrer" content="no-referrer">
<title>${text(pack.name)}</title>
<style>${STYLE}</style>
</head>
<body>
<header>
<h1>${text(pack.name)}</h1>
<p>${count} ${count === 1 ? 'brush' : 'brushes'}${facts(pack) ? ` · ${facts(pack)}` : ''}</p>
${pack.notes ? `<p>${text(pack.notes)}</p>` : ''}
<button id="save" data-file="${text(file)}">Save the pack file</button>
<small>A ZIP with JSON, 16-bit PNG, EXR and GLB: Mold Stamp opens it, and any program its pictures and meshes.</small>
</header>
${body}
<script type="application/octet-stream" id="pack">`,
    after: `</script>
<script>${SAVE}</script>
</body>
</html>
`,
  };
}

const STYLE = `
body{margin:0 auto;max-width:1180px;padding:32px 24px;background:#f2f1ed;color:#22282b;font:14px/1.5 system-ui,sans-serif}
h1{margin:0;font-size:26px}h2{margin:28px 0 8px;font-size:15px}
header p{margin:4px 0;color:#535b60}a{color:#17584f}
button{margin:12px 12px 0 0;padding:8px 16px;border:0;border-radius:6px;background:#1f7a6d;color:#fff;font:inherit;font-weight:600;cursor:pointer}
button:focus-visible{outline:3px solid #9bcfc6}small{color:#535b60}
section{display:grid;grid-template-columns:repeat(auto-fill,minmax(180px,1fr));gap:18px;margin-top:16px}
figure{margin:0}img{display:block;width:100%;aspect-ratio:1;object-fit:cover;border-radius:6px;background:#b1a899}
figcaption{display:grid;padding-top:6px}figcaption span,figcaption p{margin:0;color:#535b60;font-size:12px}
`;

/** Piece by piece, so that a large pack is no one long text twice. */
const SAVE = `
document.getElementById('save').addEventListener('click', function (e) {
  var all = document.getElementById('pack').textContent, parts = [], step = 1 << 20;
  for (var at = 0; at < all.length; at += step) {
    var some = atob(all.slice(at, at + step)), bytes = new Uint8Array(some.length);
    for (var i = 0; i < some.length; i++) bytes[i] = some.charCodeAt(i);
    parts.push(bytes);
  }
  var link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob(parts, { type: 'application/zip' }));
  link.download = e.target.dataset.file;
  link.click();
  setTimeout(function () { URL.revokeObjectURL(link.href); }, 60000);
});
`;
