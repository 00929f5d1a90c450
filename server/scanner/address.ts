/** Where a scanner is: what a person types becomes the address of its eSCL service, and is told from the wide world. */
import { lookup } from 'node:dns/promises';
import { BlockList, isIP } from 'node:net';
import { Problem } from '../problem';

const LOCAL = new BlockList();
for (const [net, prefix] of [
  ['10.0.0.0', 8],
  ['172.16.0.0', 12],
  ['192.168.0.0', 16],
  ['127.0.0.0', 8],
  ['169.254.0.0', 16],
] as const)
  LOCAL.addSubnet(net, prefix, 'ipv4');
for (const [net, prefix] of [
  ['::1', 128],
  ['fc00::', 7],
  ['fe80::', 10],
] as const)
  LOCAL.addSubnet(net, prefix, 'ipv6');

/** Addresses under which machines in data centres are told about themselves, secrets among it: no scanner has one. */
const METADATA = new BlockList();
METADATA.addSubnet('169.254.169.0', 24, 'ipv4');
METADATA.addSubnet('169.254.170.0', 24, 'ipv4');
METADATA.addSubnet('fd00:ec2::', 32, 'ipv6');

function isLocal(address: string): boolean {
  const kind = isIP(address) === 6 ? 'ipv6' : 'ipv4';
  return LOCAL.check(address, kind) && !METADATA.check(address, kind);
}

/** The service's root, e.g. http://192.168.1.20/eSCL. Throws a sentence. */
export function scannerUrl(typed: string): URL {
  const text = typed.trim();
  const whole = text.includes('://') ? text : `http://${text}`;
  const url = URL.canParse(whole) ? new URL(whole) : null;
  if (
    !text ||
    !url ||
    !/^https?:$/.test(url.protocol) ||
    !url.hostname ||
    url.username ||
    url.password ||
    url.search ||
    url.hash ||
    /\s/.test(text)
  )
    throw new Problem(
      422,
      'scanner-address',
      `“${typed}” isn’t an address. Type the scanner’s, like 192.168.1.20 or scanner.local:8080.`,
    );
  url.pathname = url.pathname === '/' ? '/eSCL' : url.pathname.replace(/\/+$/, '');
  return url;
}

export type Lookup = (host: string) => Promise<readonly string[]>;

const byName: Lookup = async (host) => (await lookup(host, { all: true })).map(({ address }) => address);

/** Throws unless every address of the host is on the local network; `outside` lets others through, when asked. */
export async function checkLocal(url: URL, outside: boolean, find: Lookup = byName): Promise<void> {
  const host = url.hostname.replace(/^\[|\]$/g, '');
  const addresses = isIP(host)
    ? [host]
    : await find(host).catch(() => {
        throw new Problem(
          502,
          'scanner-away',
          `There is no “${host}” on the network. Is the scanner on, and its address right?`,
        );
      });
  const strange = addresses.find((address) => !isLocal(address));
  if (strange !== undefined && !outside)
    throw new Problem(403, 'scanner-outside', `“${host}” isn’t on the local network: it is at ${strange}.`, {
      address: strange,
    });
}
