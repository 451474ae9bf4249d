// Whether what is typed names a thing.

// Each word that is typed begins a word of the thing's own.
export function found(words, text) { return text.toLowerCase().split(/\s+/).filter(Boolean).every((word) => words.includes(" " + word)); }
