/**
 * The page that says how a device takes the bar's authority. It is sent without encryption, since a device that does not
 * know the authority yet gets it nowhere else; the fingerprint is compared with what the lead's device or the terminal shows.
 */
import { createHash, X509Certificate } from 'node:crypto';
import express, { type Router } from 'express';
import QRCode from 'qrcode';
import { page, escaped } from './page';
import type { Certificates } from './certificate';

const NAME = 'even-kettle-authority';

/** Each system wants the authority as a file of its own kind. */
const FILES = {
  profile: { file: `${NAME}.mobileconfig`, type: 'application/x-apple-aspen-config', of: profileOf },
  certificate: { file: `${NAME}.crt`, type: 'application/x-x509-ca-cert', of: (pem: string) => pem },
  der: {
    file: `${NAME}.cer`,
    type: 'application/x-x509-ca-cert',
    of: (pem: string) => Buffer.from(new X509Certificate(pem).raw),
  },
} as const;
type FileKind = keyof typeof FILES;

type System = {
  id: string;
  name: string;
  known: RegExp;
  file: FileKind;
  steps: [picture: Picture, text: string][];
};
type Picture = 'load' | 'settings' | 'choose' | 'on';

const SYSTEMS: readonly System[] = [
  {
    id: 'ios',
    name: 'iPhone or iPad',
    known: /iPhone|iPad|iPod/,
    file: 'profile',
    steps: [
      ['load', 'Load the profile with the button above, and allow it.'],
      ['settings', 'Open Settings. Touch “Profile Downloaded” near the top, then Install.'],
      ['choose', 'In Settings open General, About, then Certificate Trust Settings at the bottom.'],
      ['on', 'Turn on the switch beside “Even Kettle”.'],
    ],
  },
  {
    id: 'android',
    name: 'Android',
    known: /Android/,
    file: 'certificate',
    steps: [
      ['load', 'Load the certificate with the button above.'],
      [
        'settings',
        'Open Settings and search for “CA certificate”. It stands under Security, Encryption and credentials.',
      ],
      ['choose', 'Touch “Install anyway” and choose the file even-kettle-authority.crt.'],
      ['on', 'Close the browser altogether, then open it again.'],
    ],
  },
  {
    id: 'windows',
    name: 'Windows',
    known: /Windows/,
    file: 'der',
    steps: [
      ['load', 'Load the certificate with the button above and open it.'],
      ['settings', 'Press “Install Certificate” and choose “Current User”.'],
      [
        'choose',
        'Choose “Place all certificates in the following store”, then “Trusted Root Certification Authorities”.',
      ],
      ['on', 'Finish, answer Yes, and start the browser again.'],
    ],
  },
  {
    id: 'macos',
    name: 'Mac',
    known: /Macintosh/,
    file: 'certificate',
    steps: [
      ['load', 'Load the certificate with the button above and open it. Keychain Access comes up.'],
      ['settings', 'Find “Even Kettle” in the list and open it.'],
      ['choose', 'Open “Trust” and set “When using this certificate” to “Always Trust”.'],
      ['on', 'Close the window, give your password, and start the browser again.'],
    ],
  },
  {
    id: 'linux',
    name: 'Linux',
    known: /Linux|X11/,
    file: 'certificate',
    steps: [
      ['load', 'Load the certificate with the button above.'],
      ['settings', 'In the browser’s settings search for “certificates” and open the list of authorities.'],
      ['choose', 'Press Import and choose the file even-kettle-authority.crt.'],
      ['on', 'Tick “trust it for websites”, then start the browser again.'],
    ],
  },
];

/** @param secureAddress the bar's address on the network, for a request that came to this host */
export function trustRoutes(certificates: Certificates, secureAddress: (host: string) => string): Router {
  const routes = express.Router();
  routes.get('/trust', async (request, response) => {
    const address = secureAddress(request.headers.host ?? '');
    const agent = request.get('User-Agent') ?? '';
    const code = await QRCode.toString(address, { type: 'svg', margin: 1, errorCorrectionLevel: 'M' });
    response.type('html').send(trustPage(certificates.fingerprint(), address, code, agent));
  });
  for (const { file, type, of } of Object.values(FILES))
    routes.get(`/trust/${file}`, (_request, response, next) => {
      const pem = certificates.authority();
      if (pem === null) return next();
      response.type(type).set('Content-Disposition', `attachment; filename="${file}"`).send(of(pem));
    });
  return routes;
}

function trustPage(fingerprint: string | null, address: string, code: string, agent: string): string {
  if (fingerprint === null)
    return page(
      'Even Kettle',
      `<h1>This bar has a certificate of its own</h1>
      <p>Nothing has to be installed. Open the bar at its secure address:</p>
      <p><a class="button" href="${escaped(address)}">Open the bar</a></p>`,
    );
  const mine = SYSTEMS.find(({ known }) => known.test(agent)) ?? SYSTEMS[0]!;
  return page(
    'Trust this bar',
    `<h1>Trust this bar</h1>
    <p>Your browser must know who this bar is before it lets the screen stay on, keeps the app for when the network is gone,
    and reads codes with the camera. It takes a minute, once for each device.</p>
    <section class="print"><h2>Is it really this bar?</h2>
    <p>Compare these characters with those on the Bench of the lead’s device, or on the server’s screen. Go on only if they are the same.</p>
    <p class="code">${groups(fingerprint)}</p></section>
    ${SYSTEMS.map((system) => sectionOf(system, system === mine)).join('\n')}
    <section><h2>Then open the bar</h2>
    <p><a class="button" href="${escaped(address)}">Open the bar</a></p>
    <p>${escaped(address)}</p>
    <div class="qr" role="img" aria-label="A code with the bar’s address">${code}</div></section>`,
  );
}

const sectionOf = ({ id, name, file, steps }: System, open: boolean): string =>
  `<details id="${id}"${open ? ' open' : ''}><summary>${name}</summary>
  <p><a class="button" href="/trust/${FILES[file].file}" download>${file === 'profile' ? 'Load the profile' : 'Load the certificate'}</a></p>
  <ol>${steps.map(([picture, text]) => `<li>${PICTURES[picture]}<span>${text}</span></li>`).join('')}</ol></details>`;

/** In lines of four pairs, as they are read aloud. */
const groups = (fingerprint: string): string =>
  fingerprint
    .split(':')
    .map((pair, index) => (index % 4 === 0 && index > 0 ? ` <wbr>${pair}` : pair))
    .join(' ');

const drawing = (inside: string): string =>
  `<svg viewBox="0 0 56 56" width="56" height="56" fill="none" stroke="currentColor" stroke-width="2.5" stroke-linecap="round" stroke-linejoin="round" aria-hidden="true"><rect x="6" y="4" width="44" height="48" rx="6"/>${inside}</svg>`;

const PICTURES: Record<Picture, string> = {
  load: drawing('<path d="M28 14v20M20 27l8 8 8-8M17 43h22"/>'),
  settings: drawing(
    '<path d="M14 17h28M14 28h28M14 39h28"/><circle cx="21" cy="17" r="3.5" fill="var(--page)"/><circle cx="35" cy="28" r="3.5" fill="var(--page)"/><circle cx="25" cy="39" r="3.5" fill="var(--page)"/>',
  ),
  choose: drawing(
    '<path d="M14 16h28M14 40h28"/><rect x="12" y="22" width="32" height="12" rx="3"/><path d="M18 28l3 3 6-6"/>',
  ),
  on: drawing(
    '<rect x="15" y="20" width="26" height="16" rx="8"/><circle cx="33" cy="28" r="5" fill="currentColor"/>',
  ),
};

/** A configuration profile with the authority in it. Its ids follow from the authority, so that it replaces itself. */
function profileOf(pem: string): string {
  const der = Buffer.from(new X509Certificate(pem).raw);
  const hex = createHash('sha256').update(der).digest('hex');
  const id = (from: number) =>
    [8, 4, 4, 4, 12]
      .reduce<[string[], number]>(
        ([parts, at], size) => [[...parts, hex.slice(at, at + size)], at + size],
        [[], from],
      )[0]
      .join('-');
  return `<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE plist PUBLIC "-//Apple//DTD PLIST 1.0//EN" "http://www.apple.com/DTDs/PropertyList-1.0.dtd">
<plist version="1.0"><dict>
<key>PayloadType</key><string>Configuration</string>
<key>PayloadVersion</key><integer>1</integer>
<key>PayloadIdentifier</key><string>even-kettle.authority</string>
<key>PayloadUUID</key><string>${id(0)}</string>
<key>PayloadDisplayName</key><string>Even Kettle</string>
<key>PayloadDescription</key><string>Lets this device know the bar.</string>
<key>PayloadContent</key><array><dict>
<key>PayloadType</key><string>com.apple.security.root</string>
<key>PayloadVersion</key><integer>1</integer>
<key>PayloadIdentifier</key><string>even-kettle.authority.certificate</string>
<key>PayloadUUID</key><string>${id(32)}</string>
<key>PayloadDisplayName</key><string>Even Kettle</string>
<key>PayloadContent</key><data>${der.toString('base64')}</data>
</dict></array>
</dict></plist>
`;
}
