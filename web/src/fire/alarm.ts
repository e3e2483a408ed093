import { useLocalStorage } from '@vueuse/core'

/** Whether alarms sound in this browser: asked for once by a tap, remembered. */
export const soundOn = useLocalStorage('ravska:alarms', false)

/** Two short tones. Browsers let a page sound only after it was tapped once. */
export function beep() {
  try {
    const sound = new AudioContext()
    for (const [at, pitch] of [
      [0, 880],
      [0.28, 660],
    ] as const) {
      const tone = sound.createOscillator()
      const loud = sound.createGain()
      tone.frequency.value = pitch
      loud.gain.setValueAtTime(0.2, sound.currentTime + at)
      loud.gain.exponentialRampToValueAtTime(0.001, sound.currentTime + at + 0.24)
      tone.connect(loud).connect(sound.destination)
      tone.start(sound.currentTime + at)
      tone.stop(sound.currentTime + at + 0.25)
    }
    setTimeout(() => void sound.close(), 900)
  } catch {
    // a browser without sound shows the alarm all the same
  }
}

/** Whether this browser shows notifications: only on this machine or by HTTPS, and where it was allowed. */
export const mayNotify = () =>
  window.isSecureContext && 'Notification' in window && Notification.permission === 'granted'

export function notify(text: string) {
  if (mayNotify() && document.hidden) new Notification('Ravska', { body: text, tag: text })
}
