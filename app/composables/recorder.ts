/**
 * Recording sound from the microphone.
 * @param most seconds after which it stops by itself
 * @param done gets the sound and how long it is, in seconds
 */
export function useRecorder(most: () => number, done: (sound: Blob, seconds: number) => void) {
  const recording = ref(false)
  const elapsed = ref(0)
  const problem = ref('')
  let recorder: MediaRecorder | undefined
  let timer: ReturnType<typeof setInterval> | undefined

  async function start() {
    problem.value = ''
    try {
      const stream = await navigator.mediaDevices.getUserMedia({ audio: true })
      const parts: Blob[] = []
      recorder = new MediaRecorder(stream, { audioBitsPerSecond: 32_000 })
      recorder.ondataavailable = (event) => parts.push(event.data)
      recorder.onstop = () => {
        stream.getTracks().forEach((track) => track.stop())
        clearInterval(timer)
        recording.value = false
        done(new Blob(parts, { type: recorder!.mimeType }), Math.max(0.1, elapsed.value))
      }
      elapsed.value = 0
      const began = performance.now()
      timer = setInterval(() => {
        elapsed.value = (performance.now() - began) / 1000
        if (elapsed.value >= most()) stop()
      }, 100)
      recorder.start(500)
      recording.value = true
    } catch {
      problem.value = 'No microphone can be used. Allow this page to use it in your browser, and try again.'
    }
  }
  function stop() {
    if (recorder?.state === 'recording') recorder.stop()
  }
  onBeforeUnmount(() => {
    stop()
    clearInterval(timer)
  })
  return { recording, elapsed, problem, start, stop }
}
