import { savedRoom } from '@nestplank/solids/room-file';

/** What a page has to read a file with, as far as the writer of glTF asks for it. */
class Reader {
  result: ArrayBuffer | null = null;
  onloadend: (() => void) | null = null;
  readAsArrayBuffer(file: Blob): void {
    void file.arrayBuffer().then((content) => {
      this.result = content;
      this.onloadend?.();
    });
  }
}

/** The room in the open binary form of glTF. */
export async function roomFile(...[shown, states]: Parameters<typeof savedRoom>): Promise<Uint8Array> {
  // outside of a page there is none
  Object.assign(globalThis, { FileReader: Reader });
  const file = await savedRoom(shown, states);
  return new Uint8Array(await file.arrayBuffer());
}
