const MOST_BYTES = 290_000
const SIZES = [1280, 1024, 800, 640, 480]

/** A picture as a small JPEG in base64: drawn anew, so that nothing but what is seen is left of it. */
export async function smaller(file: Blob): Promise<string> {
  const picture = await createImageBitmap(file).catch(() => {
    throw new Error('That is no picture; take the photo again.')
  })
  for (const size of SIZES) {
    const scale = Math.min(1, size / Math.max(picture.width, picture.height))
    const canvas = document.createElement('canvas')
    canvas.width = Math.max(1, Math.round(picture.width * scale))
    canvas.height = Math.max(1, Math.round(picture.height * scale))
    canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height)
    const text = canvas.toDataURL('image/jpeg', 0.8).split(',')[1] ?? ''
    if (text.length * 0.75 <= MOST_BYTES) return text
  }
  throw new Error('This picture cannot be made small enough; take another.')
}
