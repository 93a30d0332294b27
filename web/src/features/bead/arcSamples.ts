import type { ArcSound } from '../../api/types'

const CLICK_S = 0.006
const CLICK = 0.7
const HISS = 0.12
const HUM = 0.25

/**
 * Samples of an arc's sound, each between -1 and 1: clicks at their rate, more or less even, over a hiss and a hum.
 * `random` gives numbers between 0 and 1.
 */
export function arcSamples(sound: ArcSound, rateHz: number, seconds: number, random: () => number): Float32Array {
  const samples = new Float32Array(Math.floor(rateHz * seconds))
  for (let place = 0; place < samples.length; place++) {
    const hum = sound.tone_hz > 0 ? HUM * Math.sign(Math.sin((2 * Math.PI * sound.tone_hz * place) / rateHz)) : 0
    samples[place] = (random() * 2 - 1) * HISS * sound.hiss + hum * (0.6 + 0.4 * random())
  }
  for (const start of clickTimes(sound, seconds, random)) {
    const first = Math.floor(start * rateHz)
    const length = Math.min(Math.floor(CLICK_S * rateHz), samples.length - first)
    for (let place = 0; place < length; place++) {
      const fading = Math.exp((-5 * place) / (CLICK_S * rateHz))
      samples[first + place] = Math.max(
        -1,
        Math.min(1, (samples[first + place] ?? 0) + CLICK * fading * (random() * 2 - 1)),
      )
    }
  }
  return samples
}

/** When the clicks come, in seconds. */
export function clickTimes(sound: ArcSound, seconds: number, random: () => number): number[] {
  const times: number[] = []
  if (sound.clicks_hz <= 0) return times
  const apart = 1 / sound.clicks_hz
  for (let at = apart * random(); at < seconds; at += apart * (1 + sound.irregular * (random() * 2 - 1))) times.push(at)
  return times
}
