/** What must be there by the time it is asked for; where it is not, the fault is ours and stops here, not further on. */
export function sure<Value>(value: Value | null | undefined): Value {
  if (value === null || value === undefined) throw new Error('A value is missing that was taken for sure.')
  return value
}
