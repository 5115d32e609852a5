import { defineConfig } from '@playwright/test'
import tests from './playwright.config'

export default defineConfig({ ...tests, testDir: '.', testMatch: 'monitor.ts', timeout: 240_000 })
