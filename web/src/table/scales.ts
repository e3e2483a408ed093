/** What stands at both ends of a scale of the card, and how it is asked. */
const ENDS: Record<string, [string, string]> = {
  tenderness: ['tough', 'tender'],
  juiciness: ['dry', 'juicy'],
  'meat flavour': ['buried', 'tastes of the meat itself'],
}
const RIGHT: Record<string, string> = {
  salt: 'Salt', sweet: 'Sweetness', heat: 'Heat', smoke: 'Smoke', sour: 'Sourness', bite: 'Bite',
} // prettier-ignore

export const isRight = (scale: string) => scale in RIGHT
export const endsOf = (scale: string): [string, string] =>
  isRight(scale) ? ['too little', 'too much'] : (ENDS[scale] ?? ['dislike it', 'love it'])
export const askedAs = (scale: string) => RIGHT[scale] ?? scale.charAt(0).toUpperCase() + scale.slice(1)

/** What each place on a just-about-right scale says. */
export const RIGHT_WORDS = ['far too little', 'too little', 'just right', 'too much', 'far too much']
/** A child's faces, from the best. */
export const FACES = [
  { value: 3, word: 'yum' },
  { value: 2, word: 'so-so' },
  { value: 1, word: 'no' },
]
