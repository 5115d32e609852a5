package lesson

import (
	"strings"

	"alpenglow/core/prose"
	"alpenglow/core/refusal"
)

// Limits of the words on one mark (see docs/architecture.md for all limits).
const (
	MaxNote = 600  // characters on a sticky note, in a shape, under a picture
	MaxText = 4000 // characters in a text
)

// checkText refuses text without words, and what prose.Check refuses.
func checkText(text string, limit int) error {
	if strings.TrimSpace(text) == "" {
		return refusal.New(refusal.EmptyNote)
	}
	return prose.Check(text, limit)
}

// CheckText refuses what a person writes if it is blank, longer than so many
// characters, or would garble the page.
func CheckText(text string, limit int) error { return checkText(text, limit) }
