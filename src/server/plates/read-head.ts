import { open } from 'node:fs/promises';

/** The first bytes of a file, fewer where it is shorter. */
export async function readHead(path: string, bytes: number): Promise<Buffer> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(bytes), 0, bytes, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}
