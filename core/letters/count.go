package letters

import (
	"strings"
	"sync"
)

// Count is how many lines words take in a width. A line feed at the end begins
// no further line. What was counted is remembered: a frame's marks are asked
// for again and again.
func Count(text string, width float64, s Style) int {
	text = strings.TrimSuffix(text, "\n")
	if text == "" {
		return 1
	}
	key := counted{text, width, s}
	if n, ok := known.get(key); ok {
		return n
	}
	n := len(Lines(text, width, s))
	known.put(key, n)
	return n
}

type counted struct {
	text  string
	width float64
	style Style
}

// memory remembers up to twice maxRemembered bytes of text: when the newer half
// is full, the older is forgotten.
type memory struct {
	mu           sync.Mutex
	newer, older map[counted]int
	bytes        int
}

const maxRemembered = 4 << 20

var known = memory{newer: map[counted]int{}}

func (m *memory) get(k counted) (int, bool) {
	m.mu.Lock()
	defer m.mu.Unlock()
	n, ok := m.newer[k]
	if !ok {
		if n, ok = m.older[k]; ok {
			m.add(k, n)
		}
	}
	return n, ok
}

func (m *memory) put(k counted, n int) {
	m.mu.Lock()
	defer m.mu.Unlock()
	m.add(k, n)
}

func (m *memory) add(k counted, n int) {
	const entry = 100 // what one takes besides its text, about
	if m.bytes += len(k.text) + entry; m.bytes > maxRemembered {
		m.older, m.newer, m.bytes = m.newer, map[counted]int{}, len(k.text)+entry
	}
	m.newer[k] = n
}
