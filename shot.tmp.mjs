import { chromium } from '@playwright/test';
const [url, out, w='1280', h='800', theme='day', ...acts] = process.argv.slice(2);
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--headless','--no-sandbox','--disable-gpu'] });
const c = await b.newContext({ viewport: { width: +w, height: +h }, colorScheme: theme === 'evening' ? 'dark':'light' });
if (theme==='evening') await c.addCookies([{name:'oculent-theme', value:'evening', url: new URL(url).origin}]);
const p = await c.newPage();
p.on('console', m => m.type()==='error' && console.log('console', m.text()));
await p.goto(url); await p.waitForTimeout(1500);
for (const a of acts) { if (a.startsWith('click:')) { await p.getByRole('button', { name: a.slice(6) }).first().click(); await p.waitForTimeout(1200);} else if (a.startsWith('wait:')) await p.waitForTimeout(+a.slice(5)); }
await p.screenshot({ path: out }); await b.close();
