// The catalogues of src/locales hold the texts of the source as it stands: else say how to renew them.
import { execFileSync } from 'node:child_process'
import fs from 'node:fs'

const FOLDER = 'src/locales'
const files = fs.readdirSync(FOLDER).filter((one) => one.endsWith('.po'))
const read = () => files.map((one) => fs.readFileSync(`${FOLDER}/${one}`, 'utf8'))
const before = read()
execFileSync(process.execPath, ['node_modules/.bin/lingui', 'extract', '--clean'], { stdio: 'ignore' })
const after = read()
files.forEach((one, index) => fs.writeFileSync(`${FOLDER}/${one}`, before[index]))
const stale = files.filter((_, index) => before[index] !== after[index])
if (stale.length > 0) {
  console.error(`${stale.join(', ')}: not up to date. Run "npm run texts" in web/, then translate what is new.`)
  process.exit(1)
}
