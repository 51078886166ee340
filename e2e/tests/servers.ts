import { spawn } from 'node:child_process'
import type { ChildProcess } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { fileURLToPath } from 'node:url'

/** The program under test. */
export const BINARY = fileURLToPath(new URL('../../target/verify/upper-lobe', import.meta.url))

/** A database nobody else has. */
export function ownDatabase(): string {
  return path.join(mkdtempSync(path.join(tmpdir(), 'upper-lobe-own-')), 'test.db')
}

/** A server of its own that can be killed; answers once it listens. */
export async function serve(port: number, ...options: string[]): Promise<ChildProcess> {
  const server = spawn(BINARY, ['serve', '--port', String(port), ...options], {
    stdio: ['ignore', 'pipe', 'ignore'],
  })
  await new Promise<void>((resolve, reject) => {
    server.stdout.once('data', () => {
      resolve()
    })
    server.once('exit', () => {
      reject(new Error('the server ended before it listened'))
    })
  })
  return server
}

/** Kills it, and waits until its port is free again. */
export async function kill(server: ChildProcess): Promise<void> {
  if (server.exitCode !== null || server.signalCode !== null) return
  const gone = new Promise<void>((resolve) =>
    server.once('exit', () => {
      resolve()
    }),
  )
  server.kill('SIGKILL')
  await gone
}
