/**
 * Files to and from the person's device, as far as the browser lets.
 */
import { getDocumentAsync } from 'expo-document-picker';

/** Hands a text to the browser to be saved. */
export const saveFile = (name: string, text: string, type: string): void =>
  saveBlob(name, new Blob([text], { type: `${type};charset=utf-8` }));

export function saveBlob(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** Asks for a file; null where none was chosen. @param accept kinds of files as browsers take them: `.csv,text/csv` */
export async function chooseFile(accept: string): Promise<File | null> {
  const { assets } = await getDocumentAsync({ type: accept, copyToCacheDirectory: false });
  const [chosen] = assets ?? [];
  if (!chosen) return null;
  // The address that comes with it is not used.
  URL.revokeObjectURL(chosen.uri);
  return chosen.file ?? null;
}
