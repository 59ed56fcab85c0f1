/** The built application on a free port. */
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { createServer, type AddressInfo } from 'node:net';

export interface Server {
  origin: string;
  pid: number;
  stop(): Promise<void>;
}

async function freePort(): Promise<number> {
  const probe = createServer().listen(0, '127.0.0.1');
  await once(probe, 'listening');
  const { port } = probe.address() as AddressInfo;
  await new Promise((resolve) => probe.close(resolve));
  return port;
}

/**
 * @param at port to listen at; any that is free when none is given
 * @param folder of the build; that of this checkout when none is given
 */
export async function startServer(at?: number, folder = '.'): Promise<Server> {
  const port = at ?? (await freePort());
  const origin = `http://localhost:${port}`;
  const child: ChildProcess = spawn(process.execPath, ['server.mjs'], {
    stdio: 'ignore',
    cwd: folder,
    env: { ...process.env, PORT: String(port), ORIGIN: origin },
  });
  for (let tries = 0; ; tries++) {
    try {
      if ((await fetch(`${origin}/api/health`)).ok) break;
    } catch {
      if (tries > 150 || child.exitCode !== null)
        throw new Error('the server did not start: run `npm run build`');
    }
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  return {
    origin,
    pid: child.pid!,
    async stop() {
      if (child.exitCode !== null) return;
      child.kill();
      await once(child, 'exit');
    },
  };
}
