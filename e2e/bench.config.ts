import { defineConfig } from '@playwright/test'
import { served } from './common'

/** Kept benchmarks of the screen, on the release binary: npm run bench. Nothing is asserted. */
export default defineConfig({
  testDir: 'bench',
  workers: 1,
  reporter: [['list']],
  timeout: 120_000,
  ...served('../target/release/upper-lobe', 8138),
})
