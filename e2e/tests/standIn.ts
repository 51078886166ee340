import type { ChildProcess } from 'node:child_process'
import { spawn } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { BINARY } from './servers'

/** A dyno that runs the pulls a document plans as the model has them, one for each line it is told, and where it is. */
export async function dynoStandIn(
  document: string,
): Promise<{ process: ChildProcess; at: string }> {
  const file = join(mkdtempSync(join(tmpdir(), 'dyno-')), 'build.json')
  writeFileSync(file, document)
  const process = spawn(BINARY, ['stand-in', file, '--dyno', '--by-hand', '--every', '5'])
  const first = await new Promise<string>((told) => {
    process.stdout.once('data', (data: Buffer) => {
      told(data.toString())
    })
  })
  return { process, at: first.trim().split(' at ')[1] ?? '' }
}
