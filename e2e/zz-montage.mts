import { chromium } from '@playwright/test'
import { readFileSync } from 'node:fs'
const [out, cols, ...files] = process.argv.slice(2)
const b = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell' })
const p = await b.newPage({ viewport: { width: 1600, height: 900 } })
const imgs = files.map((f) => `<img style="width:${Math.floor(1580 / Number(cols))}px" src="data:image/png;base64,${readFileSync(f).toString('base64')}">`).join('')
await p.setContent(`<body style="margin:0;background:#fff;display:flex;flex-wrap:wrap;gap:4px;align-items:flex-start">${imgs}</body>`)
await p.screenshot({ path: out!, fullPage: true })
await b.close()
