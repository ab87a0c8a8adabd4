import base from '../playwright.config.ts';
export default { ...base, testDir: '.', webServer: undefined, workers: 1 };
