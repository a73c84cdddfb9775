/** With its first letter large: "fill the pot" is "Fill the pot". */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

/** With its first letter small, the rest as it is: "Out of the bag. Blot it" is "out of the bag. Blot it". */
export const small = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1)
