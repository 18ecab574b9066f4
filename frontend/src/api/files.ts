const UNREAD = "The file cannot be read: it may have been moved or changed since. Choose it again.";

/** The text of a file; a file that cannot be read says so. */
export const textOf = (file: File): Promise<string> => readable(() => file.text());

/** A file in base64; a file that cannot be read says so. */
export const base64Of = (file: File): Promise<string> =>
  readable(async () => inBase64(new Uint8Array(await file.arrayBuffer())));

/** A text as a file in base64. */
export const textInBase64 = (text: string): string => inBase64(new TextEncoder().encode(text));

const AT_ONCE = 32_768;

function inBase64(bytes: Uint8Array): string {
  let text = "";
  for (let at = 0; at < bytes.length; at += AT_ONCE) text += String.fromCharCode(...bytes.subarray(at, at + AT_ONCE));
  return btoa(text);
}

async function readable<Content>(read: () => Promise<Content>): Promise<Content> {
  try {
    return await read();
  } catch (cause) {
    throw new Error(UNREAD, { cause });
  }
}
