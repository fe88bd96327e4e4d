// Reads the square in a picture: node read_square.mjs WIDTH HEIGHT < pixels (RGBA). Prints what it says, or nothing.
import { readFileSync } from 'node:fs'
import jsqr from 'jsqr'

const [width, height] = process.argv.slice(2).map(Number)
process.stdout.write(jsqr(new Uint8ClampedArray(readFileSync(0)), width, height)?.data ?? '')
