// What is larger than this is not unpacked: it says so instead.

/** Of a picture of a person. */
export const pixelsOfSquare = 40_000_000
/** Of a picture that is shown: as large as cameras make them. */
export const pixelsOfPicture = 160_000_000
/** Of a file that has to lie in memory whole. */
export const bytesInMemory = 200 * 1024 ** 2

export const tooLarge = () => Object.assign(new Error('too large'), { isTooLarge: true })
