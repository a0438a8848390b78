import type { ListenOptions, Server } from 'node:net';

/** Has a server listen. @returns the port, where it has one. @throws with code EADDRINUSE when the place is taken */
export async function listening(server: Server, at: ListenOptions): Promise<number> {
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(at, () => {
      server.off('error', reject);
      resolve();
    });
  });
  const address = server.address();
  return typeof address === 'object' && address ? address.port : 0;
}
