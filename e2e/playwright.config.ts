import { defineConfig } from '@playwright/test'
import { served } from './common'

export default defineConfig({
  testDir: 'tests',
  // Each test has a build of its own; two at a time use what one leaves idle.
  workers: 2,
  forbidOnly: true,
  reporter: [['list']],
  // A machine three times slower than a free one passes: two minutes a test, and as long for a state to come.
  timeout: 120_000,
  expect: { timeout: 60_000 },
  ...served('../target/verify/upper-lobe', 8137),
})
