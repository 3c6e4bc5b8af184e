// node page.mjs BROWSER PAGE.html [SECONDS]: opens the page as a reader does; a line for each thing that is not as it
// should be, then exit code 1. SECONDS: the most that opening it may take.
import { createRequire } from 'node:module';
import { pathToFileURL } from 'node:url';

const require = createRequire(import.meta.url);
const puppeteer = require('puppeteer-core');
const [browserPath, path, seconds] = process.argv.slice(2);
const address = pathToFileURL(path).href;
const wrong = [];
const expect = (holds, what) => holds || wrong.push(what);

const browser = await puppeteer.launch({ executablePath: browserPath, headless: true, args: ['--no-sandbox', '--disable-gpu'] });
let tries = 3;
const opened = async (script = true) => {
  const page = await browser.newPage();
  await page.setJavaScriptEnabled(script);
  page.on('pageerror', (error) => wrong.push('an error in the page: ' + error.message));
  page.on('dialog', (dialog) => (wrong.push('a dialog opened'), dialog.dismiss()));
  page.on('request', (request) => request.url().startsWith('data:') || expect(request.url().split('#')[0] === address, 'it asks for ' + request.url()));
  await page.goto(address, { waitUntil: 'load' });
  if (seconds && script) {
    // From the start of loading until what is seen first has been drawn and can be used.
    const took = (await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now())))))) / 1000;
    console.log('opened in ' + took.toFixed(2) + ' s');
    // Other tests run at the time: of three tries the quickest counts.
    if (took >= Number(seconds) && --tries > 0) return await page.close(), opened(script);
    expect(took < Number(seconds), 'it opens in ' + took + ' s');
  }
  return page;
};

const shown = (page, table) => page.evaluate((rows) => [...document.querySelectorAll(rows)].filter((row) => !row.hidden).map((row) => ({ ...row.dataset })), `#${table} [data-items] > *`);

const settled = () => new Promise((done) => setTimeout(done, 400));

const page = await opened();
const all = await shown(page, 'findings');
const number = await page.evaluate(() => document.querySelectorAll('#findings details').length);
const most = 500;  // at a time
const told = async () => Number(/^\d+/.exec(await page.$eval('#findings [role=status]', (text) => text.textContent))[0]);
expect(all.length === Math.min(number, most), 'so many are shown at a time');
expect((await told()) === number, 'their number is told');
if (number > most) {
  await page.evaluate(() => document.querySelector('#findings .next').click());
  expect((await shown(page, 'findings')).length === Math.min(number, 2 * most), 'more are shown');
}
expect(all.length > 3, 'there are findings');
expect(!(await page.evaluate(() => window.hostile)), 'text of the sources ran as a script');

// Filter by a select, by a chart's bar, by words.
const family = all[0].family;
await page.select('#findings select[aria-label=Family]', family);
let some = await shown(page, 'findings');
expect(some.length > 0 && some.every((row) => row.family === family), 'the filter by family');
expect((await told()) < number && (await told()) >= some.length, 'the count of what is found');
await page.click('#findings .tools button');
expect((await told()) === number, 'all is found again');
await page.evaluate(() => document.querySelector('.bar[data-filter=level]').click());
some = await shown(page, 'findings');
expect(some.length > 0 && some.every((row) => row.level === some[0].level), "the filter by a chart's bar");
await page.click('#findings .tools button');
await page.type('#findings input[type=search]', all[0].check.toUpperCase());
await settled();
some = await shown(page, 'findings');
expect(some.length > 0 && some.some((row) => row.check === all[0].check), 'the search');
await page.type('#findings input[type=search]', ' nowhere in the page');
await settled();
expect((await shown(page, 'findings')).length === 0, 'the search for what is not there');
await page.click('#findings .tools button');

// Sort.
await page.click('#findings [data-sort=check] button');
let checks = (await shown(page, 'findings')).map((row) => row.check);
expect(checks.every((check, i) => i === 0 || checks[i - 1] <= check), 'sorted by check');
await page.click('#findings [data-sort=risk] button');
let risks = (await shown(page, 'findings')).map((row) => Number(row.risk));
expect(risks.every((risk, i) => i === 0 || risks[i - 1] >= risk), 'sorted by risk, the highest first');
await page.click('#findings [data-sort=risk] button');
risks = (await shown(page, 'findings')).map((row) => Number(row.risk));
expect(risks.every((risk, i) => i === 0 || risks[i - 1] <= risk), 'sorted by risk, the lowest first');
await page.evaluate(() => document.querySelector('#inventory [data-sort=name] button').click());
const names = (await shown(page, 'inventory')).map((row) => row.name);
expect(names.every((name, i) => i === 0 || names[i - 1] <= name), 'the inventory sorted by name');

// Details, by a click and by a link.
await page.evaluate(() => document.querySelector('#findings details:not([open]) summary').click());
const anchor = await page.evaluate(() => [...document.querySelectorAll('#findings details:not([open])')].pop().id);
await page.evaluate((id) => (location.hash = '#' + id), anchor);
await page.waitForFunction((id) => document.getElementById(id).open, { timeout: 3000 }, anchor).catch(() => wrong.push('a link to a finding opens it'));

// Dark, by the system's choice and by the button.
const background = () => page.evaluate(() => Number(/\d+/.exec(getComputedStyle(document.body).backgroundColor)[0]));
expect((await background()) > 200, 'light');
await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: 'dark' }]);
expect((await background()) < 60, 'dark where the system is');
await page.click('#colours');
expect((await background()) > 200, 'light by the button');

// Narrow.
await page.setViewport({ width: 390, height: 800 });
const width = await page.evaluate(() => document.documentElement.scrollWidth);
expect(width <= 390, `nothing is wider than a narrow screen: ${width}`);

// Without script everything is there, and details open.
const still = await opened(false);
expect((await still.evaluate(() => [...document.querySelectorAll('#findings details')].filter((row) => row.offsetParent !== null).length)) === number, 'all findings without script');
await (await still.$('#findings details:nth-of-type(3) summary')).focus();
await still.keyboard.press('Enter');
expect(await still.$eval('#findings details:nth-of-type(3)', (row) => row.open), 'details open without script');

await browser.close();
for (const line of wrong) console.log('wrong: ' + line);
process.exit(wrong.length > 0 ? 1 : 0);
