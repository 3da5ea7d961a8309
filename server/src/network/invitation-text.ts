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
          `Each device trusts the bar once, at ${trust}`,
          await qr(trust),
          `The fingerprint there must be\n${fingerprint}`,
        ];
  const link = `${address}/pair#${secret ?? ''}`;
  const lead =
    secret === null
      ? []
      : [
          'This link makes the device that opens it the lead’s, once and within a day. Show it to nobody else:',
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
