/** What the terminal shows of a bar on a network: where it is, how it is trusted, and the link that makes a device the lead's. */
import QRCode from 'qrcode';

type Told = { addresses: readonly string[]; fingerprint: string | null; secret: string | null };

export async function networkText({ addresses, fingerprint, secret }: Told): Promise<string> {
  const [address = ''] = addresses;
  const qr = (text: string) =>
    QRCode.toString(text, { type: 'terminal', small: true, errorCorrectionLevel: 'L' });
  const trust = `${address.replace(/^https:/, 'http:')}/trust`;
  const known =
    fingerprint === null
      ? []
      : [
          `Open this address once on each device, and follow what it says:\n${trust}`,
          await qr(trust),
          `The page must show this fingerprint:\n${fingerprint}`,
        ];
  const link = `${address}/pair#${secret ?? ''}`;
  const lead =
    secret === null
      ? []
      : [
          'Open this link on your own device, within a day. It works once and makes that device the lead’s, so show it to nobody else:',
          link,
          await qr(link),
        ];
  return [
    'Even Kettle is open to the network:',
    ...addresses.map((each) => `  ${each}`),
    ...known,
    ...lead,
  ].join('\n');
}
