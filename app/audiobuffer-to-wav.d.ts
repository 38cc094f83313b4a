declare module 'audiobuffer-to-wav' {
  /** 16-bit PCM WAV of a buffer. */
  export default function toWav(buffer: AudioBuffer): ArrayBuffer
}
