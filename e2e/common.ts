import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import type { PlaywrightTestConfig } from '@playwright/test'

/** Debian's Chromium, without the connections it would make on its own. */
export const chromium = {
  browserName: 'chromium' as const,
  viewport: { width: 1280, height: 800 },
  launchOptions: {
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  },
}

/** The real binary on a database of its own, with the demo. */
export function served(binary: string, port: number): PlaywrightTestConfig {
  const database = path.join(mkdtempSync(path.join(tmpdir(), 'upper-lobe-e2e-')), 'test.db')
  return {
    // Without motion, as the system's setting asks for it: nothing has to fade before it can be used.
    use: {
      ...chromium,
      contextOptions: { reducedMotion: 'reduce' },
      baseURL: `http://127.0.0.1:${port}`,
    },
    webServer: {
      command: `${binary} serve --demo --port ${port} --database ${database}`,
      url: `http://127.0.0.1:${port}/api/builds`,
      reuseExistingServer: false,
      stdout: 'ignore',
    },
  }
}
