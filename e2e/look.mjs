import { chromium } from 'playwright-core';
const b = await chromium.launch({executablePath:'/usr/bin/chromium',args:['--no-sandbox','--disable-gpu','--disable-background-networking']});
const c = await b.newContext({viewport:{width:1280,height:1100},timezoneId:'Europe/Oslo'});
const p = await c.newPage();
p.on('pageerror',e=>console.log('ERR',e.message));
await p.goto('http://localhost:8090/'); await p.getByRole('button',{name:/Continue as/}).click(); await p.getByRole('heading',{name:/^Today/}).waitFor();
await p.screenshot({path:'/tmp/s/today.png'});
await p.goto('http://localhost:8090/records'); await p.waitForTimeout(2500);
await p.screenshot({path:'/tmp/s/records.png'});
const r = await p.evaluate(async()=>{const r=await (await fetch('/api/records')).json();return JSON.stringify(r).slice(0,300)});
console.log(r);
await p.getByRole('link',{name:/Star chart, first evening|24 Nov/}).first().click(); await p.waitForTimeout(3000);
await p.screenshot({path:'/tmp/s/record.png'});
await p.getByRole('button',{name:/whole page/i}).first().click().catch(()=>{}); for (let i=1;i<5;i++){ await p.getByRole('button',{name:new RegExp('^Page '+(i+1))}).first().click(); await p.waitForTimeout(1500); await p.screenshot({path:`/tmp/s/record${i}.png`}); }
await b.close();
