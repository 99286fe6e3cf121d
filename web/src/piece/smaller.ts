/** Longer than this a photograph is made smaller before it is sent. */
const LONGEST_PX = 1600

/** A picture as a JPEG no larger than is of use; null for what is no picture. */
export async function smaller(file: File): Promise<Blob | null> {
  try {
    const seen = await createImageBitmap(file, { imageOrientation: 'from-image' })
    const share = Math.min(1, LONGEST_PX / Math.max(seen.width, seen.height))
    const canvas = document.createElement('canvas')
    canvas.width = Math.round(seen.width * share)
    canvas.height = Math.round(seen.height * share)
    canvas.getContext('2d')?.drawImage(seen, 0, 0, canvas.width, canvas.height)
    return await new Promise((done) => canvas.toBlob(done, 'image/jpeg', 0.85))
  } catch {
    return null
  }
}
