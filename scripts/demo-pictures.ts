import { type Canvas, createCanvas, type SKRSContext2D } from '@napi-rs/canvas'

/** Pictures for the demo: an invented shore, drawn anew with each seed. */

export type Scene = 'shore' | 'post' | 'quadrat' | 'map'

const [width, height] = [1200, 800]

export function drawn(scene: Scene, seed: number): Canvas {
  const canvas = createCanvas(width, height)
  const brush = canvas.getContext('2d')
  const random = randomFrom(seed * 7919 + scene.length)
  if (scene === 'map') map(brush, random)
  else if (scene === 'quadrat') quadrat(brush, random)
  else {
    shore(brush, random)
    if (scene === 'post') post(brush, random)
  }
  return canvas
}

type Random = () => number

function randomFrom(seed: number): Random {
  let state = seed | 0
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state)
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32
  }
}

function shore(brush: SKRSContext2D, random: Random): void {
  const horizon = height * (0.34 + random() * 0.14)
  const hue = 195 + random() * 25
  brush.fillStyle = 'hsl(40 34% 70%)'
  brush.fillRect(0, 0, width, height)
  band(brush, [0, horizon], [`hsl(${hue} 45% ${48 + random() * 18}%)`, `hsl(${hue - 150} 45% 88%)`])
  band(brush, [horizon, height * 0.62], [`hsl(${hue - 10} 30% 42%)`, `hsl(${hue - 20} 22% 62%)`])
  brush.fillStyle = 'rgba(255, 250, 235, 0.35)'
  for (let count = 0; count < 70; count += 1)
    brush.fillRect(random() * width, horizon + random() * (height * 0.62 - horizon), 20 + random() * 90, 1.5)
  for (let layer = 0; layer < 4; layer += 1) {
    const base = height * (0.56 + layer * 0.11)
    dune(brush, random, { base, rise: 50 + random() * 70, light: 76 - layer * 9 })
  }
  for (let count = 0; count < 420; count += 1) blade(brush, random)
}

function band(
  brush: SKRSContext2D,
  [from, to]: readonly [number, number],
  colours: readonly [string, string],
): void {
  const gradient = brush.createLinearGradient(0, from, 0, to)
  gradient.addColorStop(0, colours[0])
  gradient.addColorStop(1, colours[1])
  brush.fillStyle = gradient
  brush.fillRect(0, from, width, to - from)
}

interface Dune {
  readonly base: number
  readonly rise: number
  readonly light: number
}

function dune(brush: SKRSContext2D, random: Random, { base, rise, light }: Dune): void {
  const [long, short] = [random() * 6, random() * 6]
  brush.fillStyle = `hsl(${38 + random() * 6} 34% ${light}%)`
  brush.beginPath()
  brush.moveTo(0, height)
  for (let x = 0; x <= width; x += 8)
    brush.lineTo(x, base - rise * (0.6 * Math.sin(x / 260 + long) + 0.3 * Math.sin(x / 90 + short)))
  brush.lineTo(width, height)
  brush.fill()
}

/** Of grass, bent by the wind. */
function blade(brush: SKRSContext2D, random: Random): void {
  const [x, y, long] = [random() * width, height * (0.72 + random() * 0.3), 26 + random() * 60]
  brush.strokeStyle = `hsl(${70 + random() * 30} ${22 + random() * 20}% ${26 + random() * 22}%)`
  brush.lineWidth = 1.5 + random() * 1.5
  brush.beginPath()
  brush.moveTo(x, y)
  brush.quadraticCurveTo(x + long * 0.15, y - long * 0.7, x + long * (0.5 + random() * 0.3), y - long)
  brush.stroke()
}

function post(brush: SKRSContext2D, random: Random): void {
  const [x, top] = [width * (0.35 + random() * 0.3), height * 0.3]
  brush.fillStyle = '#4c3b2a'
  brush.fillRect(x, top, 34, height * 0.5)
  brush.fillStyle = '#c9402c'
  brush.fillRect(x, top + 30, 34, 46)
  brush.fillStyle = '#f4efe2'
  brush.font = 'bold 30px sans-serif'
  brush.fillText(String(1 + Math.floor(random() * 9)), x + 8, top + 64)
}

function quadrat(brush: SKRSContext2D, random: Random): void {
  brush.fillStyle = 'hsl(40 30% 66%)'
  brush.fillRect(0, 0, width, height)
  for (let count = 0; count < 2600; count += 1) {
    brush.fillStyle = `hsl(${random() < 0.45 ? 82 : 38} ${20 + random() * 22}% ${34 + random() * 40}%)`
    brush.beginPath()
    brush.ellipse(
      random() * width,
      random() * height,
      3 + random() * 22,
      2 + random() * 9,
      random() * 3,
      0,
      7,
    )
    brush.fill()
  }
  brush.strokeStyle = '#f6f2e6'
  brush.lineWidth = 12
  brush.strokeRect(220, 60, 720, 680)
  brush.lineWidth = 3
  for (let line = 1; line < 5; line += 1) {
    brush.strokeRect(220 + line * 144, 60, 0.1, 680)
    brush.strokeRect(220, 60 + line * 136, 720, 0.1)
  }
}

function map(brush: SKRSContext2D, random: Random): void {
  brush.fillStyle = '#f3eedd'
  brush.fillRect(0, 0, width, height)
  brush.strokeStyle = '#31606b'
  for (let creek = 0; creek < 5; creek += 1) {
    brush.lineWidth = 3 + (5 - creek) * 2.4
    brush.beginPath()
    let [x, y] = [width * (0.1 + random() * 0.8), 40]
    brush.moveTo(x, y)
    for (let bend = 0; bend < 7; bend += 1) {
      const next = [x + (random() - 0.5) * 260, y + 70 + random() * 60] as const
      brush.quadraticCurveTo(x + (random() - 0.5) * 200, y + 40, next[0], next[1])
      ;[x, y] = next
    }
    brush.stroke()
  }
  brush.strokeStyle = '#a07a3c'
  brush.lineWidth = 2
  for (let line = 0; line < 6; line += 1) {
    brush.beginPath()
    brush.ellipse(width * 0.7, height * 0.62, 60 + line * 42, 30 + line * 26, 0.4, 0, 7)
    brush.stroke()
  }
  brush.fillStyle = '#31343a'
  brush.font = 'italic 26px serif'
  brush.fillText('creek mouth', width * 0.12, height * 0.9)
}
