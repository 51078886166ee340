import { defineConfig } from '@playwright/test'
import { served } from './common'

/** Refreshes docs/screenshots: npm run pictures. */
export default defineConfig({
  testDir: 'pictures',
  workers: 1,
  reporter: [['list']],
  ...served('../target/verify/upper-lobe', 8139),
})
