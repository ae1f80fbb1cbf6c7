/** Sound from the microphone, or film from the camera with its sound. */
export type Recorded = 'sound' | 'film'

/** The first of these that the browser writes: what the server takes (server/domain/bank/media.ts). */
const types: Record<Recorded, readonly string[]> = {
  sound: ['audio/webm;codecs=opus', 'audio/mp4', 'audio/ogg;codecs=opus'],
  film: ['video/webm;codecs=vp8,opus', 'video/webm', 'video/mp4'],
}
const refusals: Record<Recorded, string> = {
  sound: 'No microphone can be used. Allow this page to use it in your browser, and try again.',
  film: 'No camera can be used. Allow this page to use camera and microphone in your browser, and try again.',
}

/**
 * Recording from microphone or camera.
 * @param most seconds after which it stops by itself
 * @param done gets what was recorded and how long it is, in seconds
 */
export function useRecorder(most: () => number, done: (recorded: Blob, seconds: number) => void) {
  const recording = ref(false)
  const elapsed = ref(0)
  const problem = ref('')
  /** What the camera sees while it records. */
  const seen = shallowRef<MediaStream | null>(null)
  let recorder: MediaRecorder | undefined
  let timer: ReturnType<typeof setInterval> | undefined

  async function start(what: Recorded = 'sound') {
    problem.value = ''
    try {
      const isFilm = what === 'film'
      const stream = await navigator.mediaDevices.getUserMedia({
        audio: true,
        video: isFilm && { width: { ideal: 640 }, height: { ideal: 360 } },
      })
      const parts: Blob[] = []
      recorder = new MediaRecorder(stream, {
        mimeType: types[what].find((type) => MediaRecorder.isTypeSupported(type)) ?? '',
        audioBitsPerSecond: 32_000,
        ...(isFilm ? { videoBitsPerSecond: 900_000 } : {}),
      })
      recorder.ondataavailable = (event) => parts.push(event.data)
      recorder.onstop = () => {
        stream.getTracks().forEach((track) => track.stop())
        clearInterval(timer)
        seen.value = null
        recording.value = false
        done(new Blob(parts, { type: recorder!.mimeType }), Math.max(0.1, elapsed.value))
      }
      seen.value = isFilm ? stream : null
      elapsed.value = 0
      const began = performance.now()
      timer = setInterval(() => {
        elapsed.value = (performance.now() - began) / 1000
        if (elapsed.value >= most()) stop()
      }, 100)
      recorder.start(500)
      recording.value = true
    } catch {
      problem.value = refusals[what]
    }
  }
  function stop() {
    if (recorder?.state === 'recording') recorder.stop()
  }
  onBeforeUnmount(() => {
    stop()
    clearInterval(timer)
  })
  return { recording, elapsed, problem, seen, start, stop }
}
