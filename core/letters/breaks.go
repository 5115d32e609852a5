package letters

import (
	"strings"
	"unicode"
)

// breaks reports for each place between two letters of a paragraph whether a
// line may end there: where Unicode allows it (UAX 14), but between letters of
// ASCII where browsers do. They differ: an address is not broken at its
// slashes. That table was read off Chromium 156, pair by pair.
func (t *setter) breaks(paragraph []rune) []bool {
	may := make([]bool, len(paragraph)+1)
	words := t.parts.LineIterator()
	for words.Next() {
		word := words.Line()
		may[word.Offset+len(word.Text)] = true
	}
	for i := 1; i < len(paragraph); i++ {
		if a, b := paragraph[i-1], paragraph[i]; a > ' ' && a < unicode.MaxASCII && b > ' ' && b < unicode.MaxASCII {
			may[i] = asciiBreak(byte(a), byte(b))
		}
	}
	return may
}

func asciiBreak(a, b byte) bool {
	switch {
	case a == '-':
		return strings.IndexByte("!$),./0123456789:;?]}", b) < 0
	case a == '?':
		return strings.IndexByte(`!"'),./:;?]}`, b) < 0
	}
	return strings.IndexByte("(<[{", b) >= 0 && strings.IndexByte(`!"#%&)*+,.:;=>\]|}~`, a) >= 0
}
