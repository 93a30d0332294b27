/** What the state of a signed record is called, after its number. */
export const STATE_WORDS: Record<string, string> = {
  signed: 'is signed',
  'awaits-second': 'is signed by one of two',
  superseded: 'is superseded by its amendment',
  void: 'is void',
  damaged: 'is damaged',
}
