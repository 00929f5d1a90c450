import { defineConfig } from '@playwright/test';
import { installed } from './scripts/browser.mjs';

/**
 * Parts of the browser that no test looks at. The popups of its address field cost a second of work a window; the
 * others are those that Playwright switches off itself, which this takes the place of.
 */
const WITHOUT = [
  'WebUIOmniboxPopup',
  'WebUIOmniboxAimPopup',
  'WebUIOmniboxFullPopup',
  'AvoidUnnecessaryBeforeUnloadCheckSync',
  'DestroyProfileOnBrowserClose',
  'HttpsUpgrades',
  'HttpsFirstBalancedModeAutoEnable',
  'LensOverlay',
  'MediaRouter',
  'PaintHolding',
  'ThirdPartyStoragePartitioning',
  'AvoidCorsURLLoaderRestartOnRedirect',
  'OptimizationHints',
  'NetworkTimeServiceQuerying',
  'AimEnabled',
  'PreconnectToSearch',
];

/** Two runs beside each other write each its own. */
const run = process.env['MOLDSTAMP_RUN'] ?? 'interface';

export default defineConfig({
  testDir: 'e2e',
  timeout: 120_000,
  expect: { timeout: 20_000 },
  // A page that is drawn in software waits for itself half of its time, so two tests go on beside each other.
  workers: 2,
  fullyParallel: true,
  retries: 0,
  forbidOnly: true,
  reporter: [['list'], ['json', { outputFile: `build/${run}.json` }]],
  outputDir: `build/test-results/${run}`,
  use: {
    actionTimeout: 30_000,
    viewport: { width: 1280, height: 800 },
    deviceScaleFactor: 0.25,
    // Each test’s browser is new: it would fetch the whole page to keep it, and be closed.
    serviceWorkers: 'block',
    // Nothing slides or fades: no test waits for it.
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: installed(),
      args: [
        '--no-sandbox',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--enable-unsafe-swiftshader',
        `--disable-features=${WITHOUT.join()}`,
      ],
    },
  },
});
