import { defineConfig } from '@playwright/test'
import { served } from './common'

export default defineConfig({
  testDir: 'tests',
  workers: 1,
  forbidOnly: true,
  reporter: [['list']],
  timeout: 30_000,
  ...served('../target/verify/upper-lobe', 8137),
})
