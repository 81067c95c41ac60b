/** A VLAN as it is typed: letters leave no trace, an empty field means untagged. */
export function vlanTyped(text: string): number | null {
  const digits = text.replace(/\D/g, '')
  return digits === '' ? null : Number(digits)
}
